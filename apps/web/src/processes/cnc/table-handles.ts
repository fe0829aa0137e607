'use client';
/**
 * What of a milling plan is dragged or clicked on the table: holding tabs along their outlines, corners that a mate must fill, clamps on the
 * stock. In screen pixels where it is drawn.
 */
import { innerCornersOf, type MillingSettings, type MillPlan } from '@nuvet/core/milling';
import { distance, nearestOnPath, type Point } from '@nuvet/core/plane';
import { withRim } from '@/table/drawing-making';
import { drawWord } from '@/table/drawing-words';
import type { Dragged, Handle } from '@/table/table-process';
import { toScreen, type View } from '@/table/view';
import { colours } from '@/ui/colours';
import { words } from '@/words';

type Canvas = CanvasRenderingContext2D;

interface Tab {
  readonly id: string;
  readonly at: Point;
  readonly operationId: string;
  readonly pieceId: string;
}

const tabsOf = ({ runs }: MillPlan): Tab[] =>
  runs.flatMap(({ tabsAt, operation, pieceId }, run) =>
    tabsAt.map((at, k) => ({ id: `${run} ${k}`, at, operationId: operation.id, pieceId })),
  );

interface Corner {
  readonly id: string;
  readonly at: Point;
  readonly operationId: string;
  readonly isRelieved: boolean;
}

const near = (a: Point, b: Point): boolean => distance(a, b) < 0.1;

/** The inner corners of what is cut with room for a mate, and which of them get it. */
function cornersOf(plan: MillPlan): readonly Corner[] {
  const corners = known.get(plan) ?? cornersAnew(plan);
  known.set(plan, corners);
  return corners;
}

/** Kept by the plan: they are drawn frame after frame. */
const known = new WeakMap<MillPlan, readonly Corner[]>();

const cornersAnew = ({ operations, parts, runs }: MillPlan): Corner[] =>
  operations.flatMap((operation) => {
    if (operation.kind !== 'profile' || !operation.isOn || operation.corners === 'as drawn') return [];
    const { id, cornersAt } = operation;
    const cut = parts.filter((piece) => runs.some((run) => run.operation === operation && run.pieceId === piece.id));
    return cut
      .flatMap((piece) => innerCornersOf(piece))
      .map((at, k) => ({
        id: `corner ${id} ${k}`,
        at,
        operationId: id,
        isRelieved: cornersAt === null || cornersAt.some((place) => near(place, at)),
      }));
  });

export const operationHandles = (plan: MillPlan): Handle[] => [...cornersOf(plan), ...tabsOf(plan)];

/** A corner that gets room is left as drawn, and the other way round. */
export function withCornerClicked({ operations }: MillingSettings, plan: MillPlan, { id }: Handle): Partial<MillingSettings> {
  const corners = cornersOf(plan);
  const clicked = corners.find((corner) => corner.id === id);
  if (!clicked) return {};
  const own = corners.filter(({ operationId }) => operationId === clicked.operationId);
  const cornersAt = own.filter((corner) => corner.isRelieved !== (corner === clicked)).map(({ at }) => at);
  return {
    operations: (operations ?? plan.operations).map((one) =>
      one.kind === 'profile' && one.id === clicked.operationId
        ? { ...one, cornersAt: cornersAt.length === own.length ? null : cornersAt }
        : one,
    ),
  };
}

/** Each inner corner that could get room as a ring, full where it does. */
export function drawCorners(canvas: Canvas, view: View, plan: MillPlan): void {
  for (const { at, isRelieved } of cornersOf(plan)) {
    const { x, y } = toScreen(view, at);
    withRim(canvas, colours.indigo, 1.8, () => canvas.arc(x, y, 5, 0, 2 * Math.PI));
    canvas.beginPath();
    canvas.arc(x, y, 4, 0, 2 * Math.PI);
    canvas.fillStyle = isRelieved ? colours.indigo : colours.sheet;
    canvas.fill();
  }
}

/** The tabs of an operation as they are, but for one that lies elsewhere: as near to there as its outline comes. */
export function withTabAt({ operations }: MillingSettings, plan: MillPlan, { id, at }: Dragged): Partial<MillingSettings> {
  const tabs = tabsOf(plan);
  const moved = tabs.find((tab) => tab.id === id);
  const outline = plan.parts.find((piece) => piece.id === moved?.pieceId)?.outer;
  if (!moved || !outline) return {};
  const places = tabs
    .filter(({ operationId }) => operationId === moved.operationId)
    .map((tab) => nearestOnPath(plan.parts.find((piece) => piece.id === tab.pieceId)?.outer ?? outline, tab === moved ? at : tab.at).point);
  return {
    operations: (operations ?? plan.operations).map((one) =>
      one.kind === 'profile' && one.id === moved.operationId && one.tabs ? { ...one, tabs: { ...one.tabs, places } } : one,
    ),
  };
}

/** Each tab as a small block, the dragged one where it is dragged to. */
export function drawTabs(canvas: Canvas, view: View, plan: MillPlan, dragged: Dragged | null): void {
  for (const { id, at } of tabsOf(plan)) {
    const { x, y } = toScreen(view, dragged?.id === id ? dragged.at : at);
    withRim(canvas, colours.madder, 2.2, () => canvas.rect(x - 5, y - 5, 10, 10));
    canvas.fillStyle = colours.sheet;
    canvas.fillRect(x - 4, y - 4, 8, 8);
  }
}

export const clampHandles = ({ clamps }: MillingSettings): Handle[] =>
  clamps.map(({ x, y, widthMm, heightMm }, k) => ({
    id: String(k),
    at: { x, y },
    box: { minX: x, minY: y, maxX: x + widthMm, maxY: y + heightMm },
  }));

export const withClampAt = ({ clamps }: MillingSettings, { id, at }: Dragged): Partial<MillingSettings> => ({
  clamps: clamps.map((clamp, k) => (String(k) === id ? { ...clamp, x: at.x, y: at.y } : clamp)),
});

/** The stock as it lies, and the clamps on it. */
export function drawSetUp(canvas: Canvas, view: View, plan: MillPlan | null, { clamps }: MillingSettings, dragged: Dragged | null): void {
  if (plan) {
    const { minX, minY, maxX, maxY } = plan.stock;
    const [a, b] = [toScreen(view, { x: minX, y: maxY }), toScreen(view, { x: maxX, y: minY })];
    withRim(canvas, colours.indigo, 1.5, () => canvas.rect(a.x, a.y, b.x - a.x, b.y - a.y));
  }
  for (const [k, clamp] of clamps.entries()) {
    const corner = dragged?.id === String(k) ? dragged.at : clamp;
    const [a, b] = [
      toScreen(view, { x: corner.x, y: corner.y + clamp.heightMm }),
      toScreen(view, { x: corner.x + clamp.widthMm, y: corner.y }),
    ];
    canvas.fillStyle = 'rgba(63, 74, 107, 0.25)';
    canvas.fillRect(a.x, a.y, b.x - a.x, b.y - a.y);
    withRim(canvas, colours.indigo, 1.5, () => canvas.rect(a.x, a.y, b.x - a.x, b.y - a.y));
    drawWord(canvas, words.cnc.clamp(k + 1), { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }, colours.indigo);
  }
}
