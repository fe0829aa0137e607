'use client';
/**
 * From places taken on a picture to a mark of the job.
 */
import type { Command, Mark, Picture, Stated } from '@nuvet/core/job';
import type { Point } from '@nuvet/core/plane';
import { isCheck, type MarkKind, markKinds } from '@nuvet/core/trueup';
import { nanoid } from 'nanoid';
import { words } from '@/words';
import { finder } from '@/workers/finder.client';
import type { Coordinates } from './coordinates';
import { setTable, type Tool, takeTool } from './table-store';

/** Play is asked for with a value that common practice starts from, mm. */
const usualPlay: Stated = { text: '0.3 mm', value: 0.3 };
const untyped: Stated = { text: '', value: null };

/** How many places a tool takes; a range is ended by the person. */
export function placesOf(tool: Tool): { readonly min: number; readonly max: number } {
  switch (tool) {
    case 'datum':
      return { min: 1, max: 1 };
    case 'pick-colour':
      return { min: 1, max: 1 };
    case 'crop-box':
    case 'limit-box':
      return { min: 2, max: 2 };
    case 'crop-outline':
    case 'limit-outline':
      return { min: 3, max: 500 };
    case 'move-picture':
    case 'along-edge':
    case 'this-one':
      return { min: Infinity, max: Infinity };
    case 'box':
      return { min: 1, max: 1 };
    default:
      return markKinds[tool];
  }
}

/** Whether a tool's places are ended by Enter or a second click on the last one. */
export const isOpenEnded = (tool: Tool): boolean => placesOf(tool).max > placesOf(tool).min;

export function newMark(kind: MarkKind, points: readonly Point[], more: Partial<Mark> = {}): Mark {
  const stated = markKinds[kind].stated.map((name): Stated => (name === 'play' ? usualPlay : untyped));
  return { id: nanoid(), kind, points: points.map((p) => ({ ...p })), stated, ...more };
}

/** Adds a mark, selects it and asks for what it states. */
function addMark(run: (command: Command) => void, picture: Picture, mark: Mark): void {
  run({ do: 'add-mark', pictureId: picture.id, mark });
  takeTool(null);
  const isAsking = mark.stated.some((s) => s.value === null) && !isCheck(mark);
  setTable({ asked: isAsking ? mark.id : null, selected: { markId: mark.id, index: mark.points.length - 1 } });
}

/** Takes what has been placed as it is meant; a message where it cannot be. */
export async function takePlaces(
  run: (command: Command) => void,
  picture: Picture,
  coordinates: Coordinates,
  tool: Tool,
  taken: readonly Point[],
): Promise<string | null> {
  switch (tool) {
    case 'this-one':
    case 'along-edge':
    case 'move-picture':
      return null;
    case 'pick-colour':
      setTable({ handedOver: { tool: 'pick-colour', points: taken } });
      takeTool(null);
      return null;
    case 'limit-outline':
      setTable({ handedOver: { tool: 'limit', points: taken } });
      takeTool(null);
      return null;
    case 'limit-box':
      setTable({ handedOver: { tool: 'limit', points: boxCorners(coordinates, taken) } });
      takeTool(null);
      return null;
    case 'datum':
      run({ do: 'change-picture', pictureId: picture.id, change: { datum: taken[0] as Point } });
      takeTool(null);
      return null;
    case 'crop-outline':
      run({ do: 'change-picture', pictureId: picture.id, change: { crop: [...taken] } });
      takeTool(null);
      return null;
    case 'crop-box':
      run({ do: 'change-picture', pictureId: picture.id, change: { crop: boxCorners(coordinates, taken) } });
      takeTool(null);
      return null;
    case 'clearance': {
      takeTool(null);
      const [a, b] = taken.map((p) => coordinates.toRaster(coordinates.toScreen(p))) as [Point, Point];
      const sides = await finder().passage(coordinates.raster, a, b);
      if (!sides) return words.table.nothingDrawnNear;
      addMark(
        run,
        picture,
        newMark(
          'clearance',
          sides.map((p) => coordinates.originalOf(p)),
        ),
      );
      return null;
    }
    case 'box':
      return null;
    default:
      addMark(run, picture, newMark(tool, taken));
      return null;
  }
}

/** A box seen upright on the screen from two of its corners. */
function boxCorners(coordinates: Coordinates, taken: readonly Point[]): Point[] {
  const [a, b] = taken.map((p) => coordinates.toScreen(p)) as [Point, Point];
  return [a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }].map((p) => coordinates.toOriginal(p));
}

/** The drawn part as a box mark. */
export async function addBox(
  run: (command: Command) => void,
  picture: Picture,
  coordinates: Pick<Coordinates, 'raster' | 'originalOf'>,
): Promise<string | null> {
  const hull = await finder().drawnPart(coordinates.raster);
  if (!hull) return words.table.nothingDrawnWasFoundInThis;
  addMark(
    run,
    picture,
    newMark(
      'box',
      hull.map((p) => coordinates.originalOf(p)),
      { boxFit: 'contained' },
    ),
  );
  return null;
}
