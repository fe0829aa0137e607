/**
 * In: the coordinates of a section as plain text, in one of the two common layouts: one loop from the trailing edge round the leading edge
 * and back; or a line with the two counts, then the upper and the lower side, each from the leading edge. Out: the section.
 */
import { say } from '../messages/index.ts';
import type { Point } from '../plane/index.ts';
import { type Airfoil, AirfoilError, airfoilThrough } from './airfoil.ts';

const mostLines = 5000;

/** @throws AirfoilError where the text holds no section */
export function readAirfoil(text: string, fallbackName: string): Airfoil {
  const lines = text.split(/\r?\n/, mostLines + 1).map((line) => line.trim());
  if (lines.length > mostLines) throw new AirfoilError(say.foam.tooLong(mostLines));
  const numbers = lines.map(pairIn);
  const first = numbers.findIndex((pair) => pair !== null);
  const name = lines.slice(0, Math.max(0, first)).find((line) => line !== '') ?? fallbackName;
  const wrong = lines.findIndex((line, k) => k > first && line !== '' && numbers[k] === null);
  if (first >= 0 && wrong >= 0) throw new AirfoilError(say.foam.noCoordinates(wrong + 1));
  const pairs = numbers.flatMap((pair) => pair ?? []);
  const [counts, ...rest] = pairs;
  return airfoilThrough(name.slice(0, 60), counts && areCounts(counts, rest.length) ? roundFrom(counts, rest) : pairs);
}

function pairIn(line: string): Point | null {
  const words = line.split(/[\s,;]+/).filter((word) => word !== '');
  const [x, y] = words.map(Number);
  return words.length >= 2 && Number.isFinite(x) && Number.isFinite(y) ? { x: x as number, y: y as number } : null;
}

/** The line with counts of the layout by sides: whole numbers that add up to the lines that follow. */
const areCounts = ({ x, y }: Point, rest: number): boolean => x > 1.5 && y > 1.5 && Math.round(x) + Math.round(y) === rest;

/** Once round from the trailing edge: the upper side backwards, then the lower one without the leading edge again. */
function roundFrom({ x }: Point, rest: readonly Point[]): Point[] {
  const upper = rest.slice(0, Math.round(x));
  const lower = rest.slice(Math.round(x));
  return [...upper].reverse().concat(lower.slice(1));
}
