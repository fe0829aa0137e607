/** How outlines are put onto the table: few as wide strokes, many as hairlines that cover the same. */
import type { Piece } from '@nuvet/core/job';
import { circlePath, polygonPath } from '@nuvet/core/plane';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { drawPieces, segmentsIn } from './drawing-outlines';

interface Stroke {
  readonly style: string;
  /** Screen pixels. */
  readonly width: number;
  readonly dash: readonly number[];
  readonly x: number;
  readonly y: number;
}

/** A canvas that only writes down what is asked of it. */
class Noted {
  strokeStyle = '';
  fillStyle = '';
  lineWidth = 1;
  lineJoin = '';
  readonly strokes: Stroke[] = [];
  readonly fills: string[] = [];
  private dash: number[] = [];
  private place = { x: 0, y: 0 };
  private scale = 1;
  private saved: { x: number; y: number; scale: number }[] = [];
  save(): void {
    this.saved.push({ ...this.place, scale: this.scale });
  }
  restore(): void {
    const { x, y, scale } = this.saved.pop() as { x: number; y: number; scale: number };
    Object.assign(this, { place: { x, y }, scale });
  }
  transform(a: number): void {
    this.scale *= a;
  }
  translate(x: number, y: number): void {
    this.place = { x: this.place.x + x * this.scale, y: this.place.y + y * this.scale };
  }
  setLineDash(dash: number[]): void {
    this.dash = dash;
  }
  fill(): void {
    this.fills.push(this.fillStyle);
  }
  stroke(): void {
    const { x, y } = this.place;
    this.strokes.push({ style: this.strokeStyle, width: this.lineWidth * this.scale, dash: this.dash.map((d) => d * this.scale), x, y });
  }
}

const piece = (id: string, sides: number, rest: Partial<Piece> = {}): Piece => ({
  id,
  name: id,
  purpose: 'cut',
  leftOut: false,
  runsOff: false,
  outer: polygonPath(
    Array.from({ length: sides }, (_, k) => ({ x: 50 * Math.cos((6.283 * k) / sides), y: 50 * Math.sin((6.283 * k) / sides) })),
  ),
  holes: [],
  ...rest,
});
const view = { scale: 4, x: 300, y: 200 };
const drawn = (pieces: readonly Piece[]): Noted => {
  const canvas = new Noted();
  drawPieces(canvas as unknown as CanvasRenderingContext2D, view, pieces);
  return canvas;
};

beforeEach(() => {
  const nothing = () => {};
  vi.stubGlobal('Path2D', class { addPath = nothing; moveTo = nothing; lineTo = nothing; arc = nothing; bezierCurveTo = nothing; closePath = nothing }); // biome-ignore format: a stand-in
  vi.stubGlobal('devicePixelRatio', 1);
});
afterEach(() => vi.unstubAllGlobals());

describe('few outlines', () => {
  it('are a tint, a pale rim and a line upon it, in pixels of the screen', () => {
    const { fills, strokes } = drawn([piece('a', 12)]);
    expect(fills).toHaveLength(1);
    expect(strokes.map(({ width }) => width)).toEqual([expect.closeTo(3.4), expect.closeTo(1.8)]);
    expect(strokes[0]?.style).not.toBe(strokes[1]?.style);
  });
  it('tell their purpose by dashes, and what is left out by short ones without a tint', () => {
    const { strokes, fills } = drawn([piece('a', 12, { purpose: 'score' }), piece('b', 12, { leftOut: true })]);
    expect(strokes.map(({ dash }) => dash.length)).toEqual([0, 2, 2]);
    expect(fills).toHaveLength(1);
  });
  it('that are open have no inside', () => {
    const open = piece('a', 12);
    expect(drawn([{ ...open, outer: { ...open.outer, closed: false } }]).fills).toHaveLength(0);
  });
  it('of one look are one stroke together', () => expect(drawn([piece('a', 5), piece('b', 7), piece('c', 9)]).strokes).toHaveLength(2));
});

describe('many outlines', () => {
  const many = [piece('a', 700, { holes: [circlePath({ x: 0, y: 0 }, 5)] })];
  it('are counted with their holes', () => expect(segmentsIn(many)).toBe(700 + (many[0]?.holes[0]?.segments.length ?? 0)));
  it('are hairlines one pixel wide, which together cover as much as the wide strokes', () => {
    const { strokes } = drawn(many);
    expect(new Set(strokes.map(({ width }) => width.toFixed(6)))).toEqual(new Set(['1.000000']));
    const [rim, line] = [
      strokes.filter(({ style }) => style === strokes[0]?.style),
      strokes.filter(({ style }) => style !== strokes[0]?.style),
    ];
    // The farthest hairline's outer side is half its own pixel beyond its middle.
    const reach = (of: readonly Stroke[]) => Math.max(...of.map(({ x, y }) => Math.hypot(x, y))) + 0.5;
    expect(2 * reach(rim)).toBeCloseTo(3.4, 1);
    expect(2 * reach(line)).toBeCloseTo(1.8, 0);
    for (const of of [rim, line]) {
      expect(of.reduce((sum, { x }) => sum + x, 0)).toBeCloseTo(0, 9);
      expect(of.reduce((sum, { y }) => sum + y, 0)).toBeCloseTo(0, 9);
    }
    // The rim lies below the line.
    expect(strokes.indexOf(line[0] as Stroke)).toBeGreaterThan(strokes.indexOf(rim.at(-1) as Stroke));
  });
  it('leave the canvas where it was', () => {
    const { strokes } = drawn([...many, piece('b', 5, { purpose: 'engrave' })]);
    expect(strokes.at(-1)?.dash.length).toBe(2);
    expect(Math.hypot(strokes.at(-1)?.x ?? 9, strokes.at(-1)?.y ?? 9)).toBeLessThan(1);
  });
  it('stay wide strokes on a finer screen, where a hairline is less than a pixel', () => {
    vi.stubGlobal('devicePixelRatio', 2);
    expect(drawn([piece('c', 800)]).strokes).toHaveLength(2);
  });
  it('of very many segments go without a rim', () => {
    const { strokes } = drawn([piece('d', 4100)]);
    expect(new Set(strokes.map(({ style }) => style)).size).toBe(1);
    expect(strokes).toHaveLength(4);
  });
});
