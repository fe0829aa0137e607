'use client';
/** How far the needle has come along the quilting line, 0 to 1, while it is looked at; and whether it runs. */
import { create } from 'zustand';

export const useNeedle = create<{ readonly share: number; readonly isRunning: boolean }>(() => ({ share: 1, isRunning: false }));
export const setNeedle = useNeedle.setState;
