'use client';
/**
 * The first look at a trace while a slider moves: the table draws it at once, past all that follows the job more slowly.
 */
import type { Piece } from '@nuvet/core/job';
import { create } from 'zustand';

export const useFirstLook = create<{ readonly pieces: readonly Piece[] | null }>(() => ({ pieces: null }));
