'use client';
/**
 * What places clicked on the table are for: once as many are there as were asked for they are taken, and let go.
 */
import type { Point } from '@nuvet/core/plane';
import { useEffect, useEffectEvent } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { setHand, useHand } from '@/table/hand-store';

type Asking = NonNullable<ReturnType<typeof useHand.getState>['asking']>;

/** @param count how many places `take` needs; with the last of them it is called, once */
export function usePlaces(what: Asking, count: 1 | 2, take: (first: Point, second: Point) => void): void {
  const { asking, places } = useHand(useShallow((s) => ({ asking: s.asking, places: s.places })));
  const isThere = asking === what && places.length >= count;
  const taken = useEffectEvent(() => {
    const [first, second] = places as [Point, Point];
    setHand({ asking: null, places: [] });
    take(first, second);
  });
  useEffect(() => {
    if (isThere) taken();
  }, [isThere]);
}
