'use client';
/** Drives a trial run: begins it with each plan, mills up to the time that is looked at, and measures the whole once. */
import type { Machine } from '@nuvet/core/job';
import type { MillPlan } from '@nuvet/core/milling';
import { proxy } from 'comlink';
import { useEffect } from 'react';
import { maker } from '@/workers/maker.client';
import { setTrial, useTrial } from './trial-store';

/** How often the time moves on while it plays, ms. */
const tickMs = 100;

export function useTrialOf(plan: MillPlan | null, machine: Machine): void {
  const { travelMmPerMin, accelerationMmPerS2 } = machine;
  const { seconds, whole, isPlaying, speed } = useTrial();
  useEffect(() => {
    let isWanted = true;
    setTrial({ whole: null, shown: null, measured: null, measuring: null, isPlaying: false });
    if (!plan || plan.runs.length === 0) return;
    const begin = async () => {
      const all = await maker().beginTrial(plan, travelMmPerMin, accelerationMmPerS2);
      if (!isWanted) return;
      setTrial({ whole: all, seconds: all, measuring: 0 });
      // What is told of the progress may come after the outcome.
      const tell = proxy((share: number) => isWanted && useTrial.getState().measured === null && setTrial({ measuring: share }));
      const measured = await maker().trialMeasured(plan, tell);
      if (isWanted) setTrial({ measured, measuring: null });
    };
    void begin();
    return () => {
      isWanted = false;
      void maker().stopTrial();
    };
  }, [plan, travelMmPerMin, accelerationMmPerS2]);
  useEffect(() => {
    if (whole === null) return;
    let isWanted = true;
    void maker()
      .trialAt(seconds)
      .then((shown) => {
        if (isWanted && shown) setTrial({ shown });
      });
    return () => {
      isWanted = false;
    };
  }, [seconds, whole]);
  useEffect(() => {
    if (!isPlaying || whole === null) return;
    const timer = setInterval(() => {
      const next = Math.min(whole, useTrial.getState().seconds + (speed * tickMs) / 1000);
      setTrial({ seconds: next, isPlaying: next < whole });
    }, tickMs);
    return () => clearInterval(timer);
  }, [isPlaying, whole, speed]);
}
