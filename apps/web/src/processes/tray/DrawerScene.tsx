'use client';
/**
 * The drawer from above: pockets are dragged, nudged and turned in it; they snap to the margin, to a wall's width off one another, and in line.
 * While one is dragged only it moves; the plan follows once it is let go.
 */
import Box from '@mui/material/Box';
import { chordsOf, type Path, type Point, pathBox, transformedPath, type turn as turnBy } from '@nuvet/core/plane';
import { placeAt, reachAlong, snappedInTray, type TrayPlan, type TrayPocket, type TraySettings } from '@nuvet/core/tray';
import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import { useOpenProcess } from '../open-process';
import type { OpenProcess } from '../process-view';
import { chooseObject, useChosenObject } from './chosen-object';
import { withObject } from './tray-objects';

const say = words.tray;
const chordMm = 0.2;
const rimMm = 12;
/** How near a pocket comes before it snaps, as a share of the view's width. */
const snapShare = 0.012;
const nudgeMm = 1;
const finerMm = 0.1;
const turnStep = Math.PI / 12;

/** What the pointer does: with a pocket, its turn, or its notch. */
type Dragging = { readonly pieceId: string; readonly what: 'place' | 'turn' | 'notch'; readonly at: Point; readonly turn: number; readonly notchAt: number; readonly snaps: readonly (string | null)[]; readonly off: Point }; // biome-ignore format: one line

export default function DrawerScene() {
  const open = useOpenProcess() as OpenProcess<TraySettings, TrayPlan> | null;
  const chosenId = useChosenObject((s) => s.pieceId);
  const svg = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<Dragging | null>(null);
  const plan = open?.plan;
  if (!open || !plan || !('layers' in plan)) return <Box sx={{ bgcolor: colours.ground }} />;
  const { settings, set } = open;
  const { widthMm, lengthMm, pockets } = plan;
  const view = { width: widthMm + 2 * rimMm, height: lengthMm + 2 * rimMm };

  /** From the window to the drawer, mm, y up. */
  const inDrawer = ({ clientX, clientY }: { clientX: number; clientY: number }): Point => {
    const matrix = svg.current?.getScreenCTM()?.inverse();
    if (!matrix) return { x: 0, y: 0 };
    const { x, y } = new DOMPoint(clientX, clientY).matrixTransform(matrix);
    return { x, y: lengthMm - y };
  };
  const settle = (one: Dragging): void => {
    const { pieceId, what, at, turn, notchAt } = one;
    set(withObject(settings, pieceId, what === 'notch' ? { notchAt } : { place: { at, turn } }));
  };
  const begin = (event: PointerEvent, one: TrayPocket, what: Dragging['what']): void => {
    event.stopPropagation();
    (event.target as Element).setPointerCapture(event.pointerId);
    chooseObject(one.pieceId);
    const p = inDrawer(event);
    setDrag({ pieceId: one.pieceId, what, at: one.at, turn: one.turn, notchAt: one.notchAt ?? 0.5, snaps: [], off: { x: one.at.x - p.x, y: one.at.y - p.y } }); // biome-ignore format: one line
  };
  const move = (event: PointerEvent): void => {
    const one = drag && pockets.find(({ pieceId }) => pieceId === drag.pieceId);
    if (!drag || !one) return;
    const p = inDrawer(event);
    if (drag.what === 'place') {
      const wish = { x: p.x + drag.off.x, y: p.y + drag.off.y };
      const { minX, minY, maxX, maxY } = pathBox(one.pocket.outer);
      const reach = event.altKey ? 0 : snapShare * view.width;
      const { at, across, up } = snappedInTray(plan, settings, one.pieceId, wish, { width: maxX - minX, height: maxY - minY }, reach);
      setDrag({ ...drag, at, snaps: [across && say.snaps[across], up && say.snaps[up]] });
    } else if (drag.what === 'turn') {
      // The handle stands above the pocket as it lay.
      const angle = one.turn + Math.atan2(p.y - one.at.y, p.x - one.at.x) - Math.PI / 2;
      setDrag({ ...drag, turn: event.altKey ? angle : Math.round(angle / turnStep) * turnStep });
    } else {
      const { middle, angle, from, to } = reachAlong(one.object.outer);
      const along = (p.x - middle.x) * Math.cos(angle) + (p.y - middle.y) * Math.sin(angle);
      // The axis may point either way once the object is turned.
      const isReversed = Math.cos(angle - reachAlong(one.outline.outer).angle - one.turn) < 0;
      const share = Math.max(0, Math.min(1, (along - from) / (to - from)));
      setDrag({ ...drag, notchAt: isReversed ? 1 - share : share });
    }
  };
  const end = (): void => {
    if (drag) settle(drag);
    setDrag(null);
  };
  const nudge = (event: KeyboardEvent, one: TrayPocket): void => {
    const step = event.shiftKey ? finerMm : nudgeMm;
    const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[event.key];
    const turned = { '[': turnStep, ']': -turnStep }[event.key];
    if (!by && turned === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    const [dx, dy] = (by ?? [0, 0]) as [number, number];
    set(withObject(settings, one.pieceId, { place: { at: { x: one.at.x + dx, y: one.at.y + dy }, turn: one.turn + (turned ?? 0) } }));
  };

  const line = view.width / 700;
  const flip = ({ x, y }: Point): Point => ({ x, y: lengthMm - y });
  const asText = (path: Path): string => `M${chordsOf(path, chordMm).map(({ x, y }) => `${x.toFixed(2)} ${(lengthMm - y).toFixed(2)}`).join('L')}${path.closed ? 'Z' : ''}`; // biome-ignore format: one line
  return (
    <Box sx={{ bgcolor: colours.ground, p: 2, overflow: 'hidden', display: 'grid' }}>
      {/* biome-ignore lint/a11y/useSemanticElements: a drawing is no field set */}
      <svg
        ref={svg}
        role="group"
        aria-label={say.inView}
        viewBox={`${-rimMm} ${-rimMm} ${view.width} ${view.height}`}
        width="100%"
        height="100%"
        style={{ touchAction: 'none', minHeight: 0 }}
        onPointerMove={move}
        onPointerUp={end}
        onPointerCancel={() => setDrag(null)}
        onPointerDown={() => chooseObject(null)}
      >
        <path d={asText(plan.drawer)} fill={colours.sheet} stroke={colours.ink} strokeWidth={1.4 * line} />
        <rect
          x={settings.marginMm}
          y={settings.marginMm}
          width={Math.max(0, widthMm - 2 * settings.marginMm)}
          height={Math.max(0, lengthMm - 2 * settings.marginMm)}
          fill="none"
          stroke={colours.line}
          strokeWidth={line}
          strokeDasharray={`${5 * line} ${5 * line}`}
        />
        {chosenLast(pockets, chosenId).map((one) => (
          <PocketInView
            key={one.pieceId}
            one={one}
            drag={drag?.pieceId === one.pieceId ? drag : null}
            isChosen={one.pieceId === chosenId}
            isFaulty={plan.notes.some(({ pieceId, isFailure }) => isFailure && pieceId === one.pieceId)}
            line={line}
            asText={asText}
            flip={flip}
            onBegin={(event, what) => begin(event, one, what)}
            onKey={(event) => nudge(event, one)}
          />
        ))}
        {drag?.snaps.some(Boolean) && (
          <text
            x={drag.at.x}
            y={lengthMm - drag.at.y}
            fontSize={11 * line}
            textAnchor="middle"
            fill={colours.verdigris}
            style={{ pointerEvents: 'none' }}
          >
            {drag.snaps.filter(Boolean).join(', ')}
          </text>
        )}
      </svg>
    </Box>
  );
}

/** The chosen one over the others, so that its handles are free. */
const chosenLast = (pockets: readonly TrayPocket[], chosenId: string | null): TrayPocket[] => [...pockets.filter(({ pieceId }) => pieceId !== chosenId), ...pockets.filter(({ pieceId }) => pieceId === chosenId)]; // biome-ignore format: one line

interface PocketProps {
  readonly one: TrayPocket;
  readonly drag: Dragging | null;
  readonly isChosen: boolean;
  readonly isFaulty: boolean;
  /** The width of a thin line, mm. */
  readonly line: number;
  readonly asText: (path: Path) => string;
  /** From y up to y down. */
  readonly flip: (p: Point) => Point;
  readonly onBegin: (event: PointerEvent, what: Dragging['what']) => void;
  readonly onKey: (event: KeyboardEvent) => void;
}

function PocketInView({ one, drag, isChosen, isFaulty, line, asText, flip, onBegin, onKey }: PocketProps) {
  const { number, name, pocket, object, at, turn, notchMiddle, numeral } = one;
  const to = drag && drag.what !== 'notch' ? placeAt(pocket.outer, drag.at, drag.turn - turn) : null;
  const placed = (path: Path): Path => (to ? transformedPath(path, to) : path);
  const all = (area: typeof pocket): string => [area.outer, ...area.holes].map((path) => asText(placed(path))).join('');
  const box = pathBox(placed(pocket.outer));
  const top = flip({ x: drag?.at.x ?? at.x, y: box.maxY + 30 * line });
  const notch = notchMiddle && flip(drag?.what === 'notch' ? notchPlace(one, drag.notchAt) : moved(notchMiddle, to));
  const colour = isFaulty ? colours.madder : colours.verdigris;
  return (
    // biome-ignore lint/a11y/useSemanticElements: a part of a drawing is no HTML button
    <g
      role="button"
      tabIndex={0}
      aria-label={say.pocketInView(number, name)}
      aria-pressed={isChosen}
      onKeyDown={onKey}
      onPointerDown={(event) => onBegin(event, 'place')}
      onFocus={() => chooseObject(one.pieceId)}
      style={{ cursor: drag ? 'grabbing' : 'grab', outline: 'none' }}
    >
      {isChosen && <path d={all(pocket)} fill="none" stroke={colours.verdigris} strokeOpacity={0.25} strokeWidth={9 * line} />}
      <path d={all(pocket)} fillRule="evenodd" fill={colours.line} stroke={colour} strokeWidth={1.6 * line} />
      <path d={all(object)} fillRule="evenodd" fill={colours.ground} stroke={colours.quietInk} strokeWidth={0.8 * line} />
      {numeral.map((path) => (
        <path
          key={asText(path)}
          d={asText(placed(path))}
          fill="none"
          stroke={colours.plum}
          strokeWidth={1.4 * line}
          strokeLinecap="round"
        />
      ))}
      {isChosen && (
        <>
          <circle
            cx={top.x}
            cy={top.y}
            r={6 * line}
            fill={colours.sheet}
            stroke={colours.verdigris}
            strokeWidth={1.6 * line}
            aria-label={say.turnHandle(name)}
            onPointerDown={(event) => onBegin(event, 'turn')}
            style={{ cursor: 'crosshair' }}
          />
          {notch && (
            <circle
              cx={notch.x}
              cy={notch.y}
              r={5 * line}
              fill={colours.verdigris}
              aria-label={say.notchHandle(name)}
              onPointerDown={(event) => onBegin(event, 'notch')}
              style={{ cursor: 'ew-resize' }}
            />
          )}
        </>
      )}
    </g>
  );
}

const moved = (p: Point, to: ReturnType<typeof turnBy> | null): Point =>
  to ? { x: to.a * p.x + to.c * p.y + to.e, y: to.b * p.x + to.d * p.y + to.f } : p;

/** Where a notch goes at a share of its object's length. */
function notchPlace({ object, outline, turn }: TrayPocket, share: number): Point {
  const { middle, angle, from, to } = reachAlong(object.outer);
  const isReversed = Math.cos(angle - reachAlong(outline.outer).angle - turn) < 0;
  const along = from + (to - from) * (isReversed ? 1 - share : share);
  return { x: middle.x + along * Math.cos(angle), y: middle.y + along * Math.sin(angle) };
}
