'use client';
/** The object that is chosen in the drawer or in the list. */
import { create } from 'zustand';

export const useChosenObject = create<{ readonly pieceId: string | null }>(() => ({ pieceId: null }));
export const chooseObject = (pieceId: string | null): void => useChosenObject.setState({ pieceId });
