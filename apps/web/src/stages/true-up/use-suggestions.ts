'use client';
/**
 * What the finding worker sees in a picture, as suggestions that one click takes.
 */
import type { Mark, Picture, Stated } from '@nuvet/core/job';
import { distance, type Point } from '@nuvet/core/plane';
import { useEffect, useMemo, useRef, useState } from 'react';
import { newMark } from '@/table/mark-making';
import { type Ghost, setTable } from '@/table/table-store';
import { words } from '@/words';
import { finder } from '@/workers/finder.client';
import type { Found } from '@/workers/finder.worker';
import { useJob } from '../../job/job-store';

export interface Suggestion {
  readonly id: string;
  readonly words: string;
  /** Sizes to choose from, the likeliest first; empty where nothing is to be chosen. */
  readonly choices: readonly string[];
  readonly accept: string;
  readonly marks: (choice: string) => readonly Mark[];
  readonly datum?: Point;
  readonly ghosts: readonly Ghost[];
}

const found = new Map<string, Found>();

/** Suggestions for a picture, once the worker has looked; `isLooking` until then. */
export function useSuggestions(picture: Picture): { suggestions: readonly Suggestion[]; isLooking: boolean } {
  const [seen, setSeen] = useState<Found | null>(found.get(picture.id) ?? null);
  const { id, widthPx, heightPx } = picture;
  useEffect(() => {
    const known = found.get(id);
    setSeen(known ?? null);
    if (known) return;
    let isWanted = true;
    finder()
      .suggest({ id, widthPx, heightPx })
      .then(
        (result) => {
          if (result) found.set(id, result);
          if (isWanted && result) setSeen(result);
        },
        // Without suggestions all else still works.
        () => {},
      );
    return () => {
      isWanted = false;
    };
  }, [id, widthPx, heightPx]);
  useCardTaken(picture, seen);
  const suggestions = useMemo(() => (seen ? suggestionsFrom(seen, picture) : []), [seen, picture]);
  const ghosts = useMemo(() => suggestions.flatMap((s) => s.ghosts), [suggestions]);
  useEffect(() => {
    setTable({ ghosts });
    return () => setTable({ ghosts: [] });
  }, [ghosts]);
  return { suggestions, isLooking: seen === null };
}

/** A scale card in an unmarked picture is taken without asking: it was laid there for that. */
function useCardTaken(picture: Picture, seen: Found | null): void {
  const run = useJob((s) => s.run);
  const couldRedo = useJob((s) => s.redoable.length > 0);
  const done = useRef(new Set<string>());
  useEffect(() => {
    if (!seen?.card || picture.marks.length > 0 || picture.locked || couldRedo || done.current.has(picture.id)) return;
    done.current.add(picture.id);
    run({ do: 'add-mark', pictureId: picture.id, mark: cardMark(seen.card) });
  }, [seen, picture, couldRedo, run]);
}

const checkLine: Stated = { text: '100 mm', value: 100 };
const cardMark = (card: NonNullable<Found['card']>): Mark =>
  newMark('scale-card', card.points, { places: card.places, stated: [checkLine] });

const rulerSteps: readonly (readonly [word: string, mm: number])[] = [
  ['1 mm', 1],
  ['1/16 in', 25.4 / 16],
  ['10 mm', 10],
  ['1/8 in', 25.4 / 8],
  ['1/10 in', 2.54],
  ['5 mm', 5],
  ['1/32 in', 25.4 / 32],
  ['1/4 in', 6.35],
  ['1 in', 25.4],
];
const squareSteps: readonly (readonly [word: string, mm: number])[] = [
  ['5 mm', 5],
  ['1/4 in', 6.35],
  ['1 mm', 1],
  ['4 mm', 4],
  ['10 mm', 10],
  ['1/5 in', 5.08],
  ['1/8 in', 25.4 / 8],
  ['1 in', 25.4],
];

/** A step that differs by more from what the file's resolution says is another step. */
const sameShare = 0.02;

/**
 * The steps with the likeliest first. Where the file's resolution is trusted only those that agree with it are left: what
 * repeats otherwise is part of the drawing and no scale.
 */
function byLikelihood(steps: readonly (readonly [string, number])[], stepPx: number, dpi: number | undefined): string[] {
  if (!dpi) return steps.map(([word]) => word);
  const off = (mm: number): number => Math.abs(Math.log((mm * dpi) / (stepPx * 25.4)));
  return steps
    .filter(([, mm]) => off(mm) <= sameShare)
    .toSorted((a, b) => off(a[1]) - off(b[1]))
    .map(([word]) => word);
}

function suggestionsFrom(seen: Found, picture: Picture): Suggestion[] {
  const has = (...kinds: Mark['kind'][]) => picture.marks.some((m) => kinds.includes(m.kind));
  const dpi = picture.resolution?.trusted ? picture.resolution.dpi : undefined;
  const list: Suggestion[] = [];
  if (seen.card && !has('scale-card')) {
    const { card } = seen;
    list.push({
      id: 'card',
      words: words.trueUp.cardFound(card.markers),
      choices: [],
      accept: words.trueUp.useTheCard,
      marks: () => [cardMark(card)],
      ghosts: [],
    });
  }
  if (seen.paper && seen.paper.sheets.length > 0 && !has('frame', 'scale-card')) list.push(fromPaper(seen.paper));
  if (seen.direction && !has('level', 'plumb', 'frame', 'scale-card')) list.push(fromDirection(seen.direction));
  if (seen.squares && !has('known-length', 'frame', 'scale-card')) list.push(...fromSquares(seen.squares, dpi));
  else if (seen.ruler && !has('known-length', 'scale-card')) list.push(...fromRuler(seen.ruler, dpi));
  // In a photograph aslant a mirrored drawing is not mirrored: the sheet comes first.
  const isSeenAslant = (seen.paper?.sheets.length ?? 0) > 0 || seen.card !== null || has('frame', 'scale-card');
  if (seen.axis && !isSeenAslant && isNearlyStraight(seen.axis) && !has('plumb', 'level') && picture.datum === null)
    list.push(fromAxis(seen.axis));
  return list;
}

function fromPaper({ corners, isFirstLong, sheets }: NonNullable<Found['paper']>): Suggestion {
  const marks = (choice: string): Mark[] => {
    const sheet = sheets.find((s) => s.name === choice) ?? sheets[0];
    if (!sheet) return [];
    const sides = isFirstLong ? [sheet.longMm, sheet.shortMm] : [sheet.shortMm, sheet.longMm];
    return [newMark('frame', corners, { stated: sides.map((mm) => ({ text: words.trueUp.millimetres(mm), value: mm })) })];
  };
  const names = sheets.map((s) => s.name);
  return {
    id: 'paper',
    words: words.trueUp.paperFound,
    choices: names,
    accept: words.trueUp.useItsCorners,
    marks,
    ghosts: [{ id: 'paper', kind: 'frame', points: corners, word: `${names[0]}?` }],
  };
}

function fromDirection({ turn, longest }: NonNullable<Found['direction']>): Suggestion {
  const isUpright = Math.abs(Math.sin(longest.angle)) > Math.SQRT1_2;
  const angle = turn + (isUpright ? Math.PI / 2 : 0);
  const middle = { x: (longest.from.x + longest.to.x) / 2, y: (longest.from.y + longest.to.y) / 2 };
  const half = longest.lengthPx / 2;
  const [dx, dy] = [Math.cos(angle) * half, Math.sin(angle) * half];
  const points = [
    { x: middle.x - dx, y: middle.y - dy },
    { x: middle.x + dx, y: middle.y + dy },
  ];
  const kind = isUpright ? 'plumb' : 'level';
  const degrees = (turn * 180) / Math.PI;
  return {
    id: 'direction',
    words: `Most lines lie ${Math.abs(degrees).toFixed(2)}° off.`,
    choices: [],
    accept: words.trueUp.turnByDegrees(degrees < 0 ? '−' : '+', Math.abs(degrees).toFixed(2)),
    marks: () => [newMark(kind, points)],
    ghosts: [{ id: 'direction', kind, points, word: words.trueUp.straighten }],
  };
}

function fromRuler(ruler: NonNullable<Found['ruler']>, dpi: number | undefined): Suggestion[] {
  const choices = byLikelihood(rulerSteps, ruler.stepPx, dpi);
  if (choices.length === 0) return [];
  const mmOf = (choice: string) => rulerSteps.find(([word]) => word === choice)?.[1] ?? 1;
  // The first line, on the left or below, is the rule's zero.
  const isTurned = Math.abs(ruler.to.x - ruler.from.x) > Math.abs(ruler.to.y - ruler.from.y) ? ruler.from.x > ruler.to.x : ruler.from.y < ruler.to.y; // biome-ignore format: one line
  const points = isTurned ? [ruler.to, ruler.from] : [ruler.from, ruler.to];
  const percent = Math.max(0.01, (200 * ruler.stepErrorPx) / ruler.stepPx);
  return [
    {
      id: 'ruler',
      words: words.trueUp.rulerFound(ruler.count, percent.toFixed(2)),
      choices,
      accept: words.trueUp.useItAsALength,
      marks: (choice) => [newMark('known-length', points, { stated: [lengthOf(ruler.count, choice, mmOf(choice))] })],
      ghosts: [{ id: 'ruler', kind: 'known-length', points, word: words.trueUp.divisionsMarked(ruler.count) }],
    },
  ];
}

const lengthOf = (count: number, word: string, mm: number): Stated => ({ text: `${count} * ${word}`, value: count * mm });

function fromSquares({ across, up }: NonNullable<Found['squares']>, dpi: number | undefined): Suggestion[] {
  const choices = byLikelihood(squareSteps, across.stepPx, dpi);
  if (choices.length === 0) return [];
  const mmOf = (choice: string) => squareSteps.find(([word]) => word === choice)?.[1] ?? 5;
  const both = [across, up];
  return [
    {
      id: 'squares',
      words: words.trueUp.squaresFound(across.stepPx.toFixed(1), up.stepPx.toFixed(1)),
      choices,
      accept: words.trueUp.useTheSquares,
      marks: (choice) => both.map((r) => newMark('known-length', [r.from, r.to], { stated: [lengthOf(r.count, choice, mmOf(choice))] })),
      ghosts: both.map((r, k) => ({
        id: `squares-${k}`,
        kind: 'known-length',
        points: [r.from, r.to],
        word: words.trueUp.squares(r.count),
      })),
    },
  ];
}

/** An axis that crosses the picture aslant is not meant to be made level or plumb. */
function isNearlyStraight({ a, b }: NonNullable<Found['axis']>): boolean {
  const [dx, dy] = [Math.abs(a.x - b.x), Math.abs(a.y - b.y)];
  return Math.min(dx, dy) < 0.36 * Math.max(dx, dy);
}

function fromAxis({ a, b }: NonNullable<Found['axis']>): Suggestion {
  const isUpright = Math.abs(a.y - b.y) > Math.abs(a.x - b.x);
  const kind = isUpright ? 'plumb' : 'level';
  return {
    id: 'axis',
    words: words.trueUp.mirrorFound(distance(a, b).toFixed(0)),
    choices: [],
    accept: isUpright ? words.trueUp.makeItPlumbDatumAtIts : words.trueUp.makeItLevelDatumAtIts,
    marks: () => [newMark(kind, [a, b])],
    datum: isUpright ? (a.y > b.y ? a : b) : a.x < b.x ? a : b,
    ghosts: [{ id: 'axis', kind, points: [a, b], word: words.trueUp.axis }],
  };
}
