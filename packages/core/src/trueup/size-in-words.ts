/**
 * In: a length in mm. Out: a sentence's end that a person can check by eye, such as "longer than a bus".
 * Sizes of everyday things: common practice, rounded.
 */
import { english } from '../messages/index.ts';

const things: readonly (readonly [mm: number, name: string])[] = [
  [3, english.trueUp.aGrainOfRice],
  [10, english.trueUp.aFingernailIsWide],
  [25, english.trueUp.aWalnut],
  [55, english.trueUp.aMatchbox],
  [85, english.trueUp.aPlayingCard],
  [150, english.trueUp.aHand],
  [300, english.trueUp.aSheetOfWritingPaper],
  [450, english.trueUp.aForearm],
  [900, english.trueUp.aTableIsHigh],
  [2000, english.trueUp.aDoor],
  [4500, english.trueUp.aCar],
  [12_000, english.trueUp.aBus],
  [25_000, english.trueUp.aRailwayCoach],
  [100_000, english.trueUp.aFootballPitch],
];

/** "longer than a bus", "about as long as a hand", "smaller than a grain of rice". */
export function sizeInWords(mm: number): string {
  const near = things.find(([size]) => Math.abs(Math.log(mm / size)) < 0.2);
  if (near) return english.trueUp.aboutAsLongAs(near[1]);
  const below = things.findLast(([size]) => size < mm);
  return below ? english.trueUp.longerThan(below[1]) : english.trueUp.smallerThan((things[0] as (typeof things)[0])[1]);
}
