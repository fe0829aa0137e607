/**
 * In: where two towers hold a hot wire, place after place. Out: a program for four axes in G-code, and what such a program says.
 * Rests on: RS-274/NGC as published by NIST (Kramer, Proctor & Messina 2000): G21, G90, G93: F is then the inverse of a move's time in
 * minutes, so that it means the same whatever a machine takes for the length of a move of four axes. M3 and M5 heat the wire.
 */
import type { TowerPlace } from '../foam/towers.ts';
import { SaidError, say } from '../messages/index.ts';

/** The right tower's axes, as the machine calls them; the left one's are X and Y. */
export const towerAxes = { UV: ['U', 'V'], AB: ['A', 'B'], ZA: ['Z', 'A'] } as const;
export type TowerAxes = keyof typeof towerAxes;

export interface WireProgramOptions {
  readonly title: string;
  readonly axes: TowerAxes;
  /** To warm up, seconds. */
  readonly warmUpS: number;
}

const decimals = 4;
/** No move is quicker than this, minutes: F would be as large as a machine reads. */
const quickestMin = 1e-6;

export function writeWireProgram(path: readonly TowerPlace[], { title, axes, warmUpS }: WireProgramOptions): string {
  const [u, v] = towerAxes[axes];
  const figure = (mm: number): string => (Math.abs(mm) < 0.5 * 10 ** -decimals ? 0 : mm).toFixed(decimals);
  const words = ({ left, right }: TowerPlace): string => `X${figure(left.x)} Y${figure(left.y)} ${u}${figure(right.x)} ${v}${figure(right.y)}`; // biome-ignore format: one line
  const [first, ...rest] = path;
  if (!first) return 'M2\n';
  return [
    `(${title.replace(/[()\r\n]/g, ' ').slice(0, 60)})`,
    'G21 G90 G17',
    `G0 ${words(first)}`,
    'M3',
    `G4 P${warmUpS.toFixed(1)}`,
    'G93',
    ...rest.map((place) => `G1 ${words(place)} F${(1 / Math.max(place.minutes, quickestMin)).toFixed(4)}`),
    'G94',
    'M5',
    'M2',
    '',
  ].join('\n');
}

export class WireProgramError extends SaidError {
  readonly code = 'no-wire-program';
}

/** A program's places, the first where it begins to cut. @throws WireProgramError where a line means nothing here */
export function readWireProgram(text: string, axes: TowerAxes): TowerPlace[] {
  const names = ['X', 'Y', ...towerAxes[axes]];
  const at = [0, 0, 0, 0];
  const places: TowerPlace[] = [];
  let [isInverse, feed] = [false, 0];
  text.split(/\r?\n/).forEach((line, number) => {
    const words = [...line.replace(/\([^)]*\)|;.*$/g, '').matchAll(/([A-Z])\s*([-+]?[\d.]+)/gi)].map(([, letter, value]) => [(letter as string).toUpperCase(), Number(value)] as const); // biome-ignore format: one line
    let moves = false;
    for (const [letter, value] of words) {
      if (!Number.isFinite(value)) throw new WireProgramError(say.foam.noProgramLine(number + 1));
      if (letter === 'G' && (value === 93 || value === 94)) isInverse = value === 93;
      else if (letter === 'F') feed = value;
      else if (names.includes(letter)) {
        at[names.indexOf(letter)] = value;
        moves = true;
      } else if (!'GMPNST'.includes(letter)) throw new WireProgramError(say.foam.noProgramLine(number + 1));
    }
    if (!moves) return;
    const [x, y, u, v] = at as [number, number, number, number];
    places.push({ left: { x, y }, right: { x: u, y: v }, minutes: isInverse && feed > 0 ? 1 / feed : 0 });
  });
  return places;
}

/** How far a program's places are from those that were meant, mm. */
export function wireProgramDeviation(meant: readonly TowerPlace[], read: readonly TowerPlace[]): number {
  if (meant.length !== read.length) return Infinity;
  return meant.reduce((most, { left, right }, k) => {
    const other = read[k] as TowerPlace;
    return Math.max(most, Math.abs(left.x - other.left.x), Math.abs(left.y - other.left.y), Math.abs(right.x - other.right.x), Math.abs(right.y - other.right.y)); // biome-ignore format: one line
  }, 0);
}
