'use client';
/**
 * Many outlines on the table: drawn once onto a canvas of their own, which is laid where the view has moved to; only those that
 * change are drawn anew in every frame. Once the view rests they are drawn sharp again.
 */
import type { Piece } from '@nuvet/core/job';
import { drawPieces, maxWithRim, segmentsIn } from './drawing-outlines';
import type { Size, View } from './view';

/** Fewer segments are drawn as they are in every frame. */
const fewSegments = 1500;
/** How much of the screen's width and height is drawn beyond each of its edges. */
const margin = 0.4;
/** The view rests once it has not moved for this long, ms. */
const restMs = 140;
/** Enlarged or reduced by more the outlines are drawn anew also while the view moves. */
const maxZoom = 2;

interface Drawn {
  readonly canvas: HTMLCanvasElement;
  readonly view: View;
  readonly screen: Size;
  readonly pieces: ReadonlySet<Piece>;
  readonly hasRim: boolean;
  /** Of what is drawn beyond the screen's left and upper edge, CSS pixels. */
  readonly beyond: { readonly x: number; readonly y: number };
  readonly ratio: number;
}

export class OutlinesAtRest {
  private canvas: HTMLCanvasElement | null = null;
  private drawn: Drawn | null = null;
  private before: ReadonlySet<Piece> = new Set();
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** @param onRest asked for to draw the table once more, when the view has come to rest */
  constructor(private readonly onRest: () => void) {}

  draw(canvas: CanvasRenderingContext2D, view: View, pieces: readonly Piece[], screen: Size): void {
    clearTimeout(this.timer);
    const segments = segmentsIn(pieces);
    if (segments <= fewSegments) {
      this.drawn = null;
      drawPieces(canvas, view, pieces);
      return;
    }
    const hasRim = segments <= maxWithRim;
    const now = new Set(pieces);
    if (!this.drawn || this.drawn.hasRim !== hasRim || !this.serves(this.drawn, view, screen) || !isWithin(this.drawn.pieces, now)) {
      // What was there before is likely to stay; what is new may be under the pointer.
      const staying = pieces.filter((piece) => this.before.has(piece));
      if (this.before.size > 0 && segmentsIn(staying) <= fewSegments) {
        this.before = now;
        this.drawn = null;
        drawPieces(canvas, view, pieces, hasRim);
        this.timer = setTimeout(this.rest, restMs);
        return;
      }
      this.canvas ??= document.createElement('canvas');
      this.drawn = drawnOn(this.canvas, view, screen, staying.length > 0 ? staying : pieces, hasRim);
    }
    const { drawn } = this;
    this.before = now;
    const { left, top, width, height } = placeOf(drawn, view);
    canvas.drawImage(drawn.canvas, left, top, width, height);
    const moving = pieces.filter((piece) => !drawn.pieces.has(piece));
    if (moving.length > 0) drawPieces(canvas, view, moving, hasRim);
    const isSharp = view.scale === drawn.view.scale && isWhole(view.x - drawn.view.x) && isWhole(view.y - drawn.view.y);
    if (isSharp && segmentsIn(moving) <= fewSegments) return;
    this.timer = setTimeout(this.rest, restMs);
  }

  private readonly rest = (): void => {
    this.drawn = null;
    this.before = new Set();
    this.onRest();
  };

  /** Nothing is asked for any more. */
  end(): void {
    clearTimeout(this.timer);
  }

  /** Whether what was drawn covers the screen at about the right size. */
  private serves(drawn: Drawn, view: View, screen: Size): boolean {
    if (drawn.screen.width !== screen.width || drawn.screen.height !== screen.height) return false;
    const share = view.scale / drawn.view.scale;
    if (share > maxZoom || share < 1 / maxZoom) return false;
    const { left, top, width, height } = placeOf(drawn, view);
    return left <= 0 && top <= 0 && left + width >= screen.width && top + height >= screen.height;
  }
}

/** Where what was drawn lies on the screen now, CSS pixels. */
function placeOf({ canvas, view: then, beyond, ratio }: Drawn, view: View): { left: number; top: number; width: number; height: number } {
  const share = view.scale / then.scale;
  return {
    left: view.x - (beyond.x + then.x) * share,
    top: view.y - (beyond.y + then.y) * share,
    width: (canvas.width / ratio) * share,
    height: (canvas.height / ratio) * share,
  };
}

const isWhole = (pixels: number): boolean => Math.abs(pixels * devicePixelRatio - Math.round(pixels * devicePixelRatio)) < 1e-3;

function isWithin(part: ReadonlySet<Piece>, whole: ReadonlySet<Piece>): boolean {
  for (const piece of part) if (!whole.has(piece)) return false;
  return true;
}

function drawnOn(canvas: HTMLCanvasElement, view: View, screen: Size, pieces: readonly Piece[], hasRim: boolean): Drawn {
  const ratio = devicePixelRatio;
  const beyond = { x: Math.round(margin * screen.width), y: Math.round(margin * screen.height) };
  canvas.width = Math.ceil((screen.width + 2 * beyond.x) * ratio);
  canvas.height = Math.ceil((screen.height + 2 * beyond.y) * ratio);
  const context = canvas.getContext('2d') as CanvasRenderingContext2D;
  context.scale(ratio, ratio);
  drawPieces(context, { ...view, x: view.x + beyond.x, y: view.y + beyond.y }, pieces, hasRim);
  return { canvas, view, screen, pieces: new Set(pieces), hasRim, beyond, ratio };
}
