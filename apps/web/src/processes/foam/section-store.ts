'use client';
/** Which section is looked at, and which of its points is chosen. */
import { create } from 'zustand';

export const useChosenSection = create<{ readonly section: number; readonly point: number | null }>(() => ({ section: 0, point: null }));
export const chooseSection = (section: number, point: number | null = null): void => useChosenSection.setState({ section, point });
