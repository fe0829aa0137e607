'use client';
/** Which end of the quilting line the next click in the view gives a place. */
import { create } from 'zustand';

export type LineEnd = 'startAt' | 'endAt';
export const useLineEnds = create<{ readonly asking: LineEnd | null }>(() => ({ asking: null }));
export const askForEnd = (asking: LineEnd | null): void => useLineEnds.setState({ asking });
