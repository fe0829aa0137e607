/**
 * Takes the places that a tool in hand needs, by clicks or by keyboard alone; the last one makes its mark.
 */
import { distance, type Point } from '@nuvet/core/plane';
import { isOpenEnded, placesOf, takePlaces } from '../mark-making';
import { ignoresSnapping, setTable, type Tool, useTable } from '../table-store';
import { arrows, clickSlack, type KeyPress, type Surroundings, type TableTool } from './tool';

/** Tools that take what they are pointed at, not a feature near by. */
const traceTools: ReadonlySet<Tool> = new Set<Tool>(['this-one', 'along-edge', 'limit-box', 'limit-outline', 'pick-colour']);

const snaps = (tool: Tool | null): boolean =>
  tool !== null && !tool.startsWith('crop') && tool !== 'move-picture' && !traceTools.has(tool) && tool !== 'box';

export interface PlaceTaker extends TableTool {
  /** Makes what the places taken so far are for. */
  finish(tool: Tool, taken: readonly Point[]): Promise<void>;
}

/** @param onClick what a click does with the tool in hand, also one by keyboard */
export function placeTaker(
  { picture, run, coordinates, lookForSnap, placeAt, onMessage }: Surroundings,
  onClick: (at: Point, keys: KeyPress) => void,
): PlaceTaker {
  const finish = async (tool: Tool, taken: readonly Point[]): Promise<void> => {
    const place = coordinates();
    if (!picture || !place) return;
    const message = await takePlaces(run, picture, place, tool, taken);
    if (message) onMessage(message);
  };

  /** One place more for the tool in hand; the last one makes the mark. */
  const take = (tool: Tool, p: Point, isHeldOff: boolean): void => {
    const { taken } = useTable.getState();
    const [at, place, last] = [placeAt(p, isHeldOff), coordinates(), taken.at(-1)];
    if (!at || !place) return;
    const { min, max } = placesOf(tool);
    const isAgain = last !== undefined && distance(place.toScreen(last), p) < clickSlack * 2;
    if (isAgain) {
      if (isOpenEnded(tool) && taken.length >= min) void finish(tool, taken);
      return;
    }
    const next = [...taken, at];
    setTable({ taken: next });
    if (next.length >= max) void finish(tool, next);
  };

  return {
    finish,
    click(at, keys) {
      const { tool } = useTable.getState();
      if (!tool || !picture || tool === 'move-picture') return false;
      take(tool, at, ignoresSnapping(keys));
      return true;
    },
    hover(at) {
      if (snaps(useTable.getState().tool)) lookForSnap(at);
    },
    /** Arrows move the place that Enter takes, with shift by single screen pixels. */
    key(press) {
      const { tool, pointer, screen, taken } = useTable.getState();
      const arrow = arrows[press.key];
      if (!tool || !(arrow || press.key === 'Enter')) return false;
      const at = pointer ?? { x: screen.width / 2, y: screen.height / 2 };
      if (arrow) {
        const step = press.shiftKey ? 1 : 10;
        const next = { x: at.x + arrow[0] * step, y: at.y + arrow[1] * step };
        setTable({ pointer: next });
        if (snaps(tool)) lookForSnap(next);
      } else if (isOpenEnded(tool) && taken.length >= placesOf(tool).min) void finish(tool, taken);
      else onClick(at, press);
      return true;
    },
  };
}
