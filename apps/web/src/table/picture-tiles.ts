'use client';
/**
 * A picture's tiles in the browser: fetched when they come into sight, the least used let go.
 */
import { apply, inverse, type Point, type Transform } from '@nuvet/core/plane';
import { levelSize, levelsOf, tileSize } from '../shared/pyramid';
import type { Size } from './view';

const maxKept = 320;

interface Kept {
  readonly image: HTMLImageElement;
  ready: boolean;
}

export class PictureTiles {
  private readonly kept = new Map<string, Kept>();
  private readonly listeners = new Set<() => void>();
  readonly levels: number;

  constructor(
    readonly id: string,
    readonly widthPx: number,
    readonly heightPx: number,
  ) {
    this.levels = levelsOf(widthPx, heightPx);
  }

  onTile(listener: () => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  private tile(level: number, column: number, row: number): HTMLImageElement | null {
    const key = `${level}/${column}/${row}`;
    let kept = this.kept.get(key);
    if (kept) {
      // Last used goes last.
      this.kept.delete(key);
      this.kept.set(key, kept);
    } else {
      const image = new Image();
      kept = { image, ready: false };
      this.kept.set(key, kept);
      const made = kept;
      image.onload = () => {
        made.ready = true;
        for (const listener of this.listeners) listener();
      };
      image.onerror = () => this.kept.delete(key);
      image.src = `/api/pictures/${this.id}/tiles/${key}`;
      if (this.kept.size > maxKept) {
        const oldest = this.kept.keys().next().value;
        if (oldest) this.kept.delete(oldest);
      }
    }
    return kept.ready ? kept.image : null;
  }

  /** The level whose pixels are just as fine as the screen's. */
  levelFor(screenPxPerPicturePx: number): number {
    const wanted = Math.floor(Math.log2(1 / Math.max(1e-9, screenPxPerPicturePx)));
    return Math.min(this.levels - 1, Math.max(0, wanted));
  }

  /**
   * Draws what a window of the screen shows, coarse tiles under the fine ones that are still on their way.
   * @param placement picture pixels to the window's CSS pixels
   */
  draw(canvas: CanvasRenderingContext2D, placement: Transform, window: Size, deviceRatio: number): void {
    const scale = Math.hypot(placement.a, placement.b);
    const finest = this.levelFor(scale * deviceRatio);
    canvas.save();
    canvas.transform(placement.a, placement.b, placement.c, placement.d, placement.e, placement.f);
    canvas.imageSmoothingEnabled = scale < 3;
    // Levels are never shrunk below a half, where plain interpolation is sharp enough.
    canvas.imageSmoothingQuality = 'low';
    const sight = this.inSight(placement, window);
    if (finest !== this.levels - 1) this.drawLevel(canvas, this.levels - 1, sight);
    if (finest + 2 < this.levels - 1) this.drawLevel(canvas, finest + 2, sight);
    this.drawLevel(canvas, finest, sight);
    canvas.restore();
  }

  private drawLevel(canvas: CanvasRenderingContext2D, level: number, sight: { from: Point; to: Point }): void {
    const size = levelSize(this.widthPx, this.heightPx, level);
    const [kx, ky] = [this.widthPx / size.width, this.heightPx / size.height];
    const clamp = (value: number, max: number) => Math.min(max, Math.max(0, value));
    const lastColumn = Math.ceil(size.width / tileSize) - 1;
    const lastRow = Math.ceil(size.height / tileSize) - 1;
    const [c0, c1] = [sight.from.x, sight.to.x].map((x) => clamp(Math.floor(x / kx / tileSize), lastColumn)) as [number, number];
    const [r0, r1] = [sight.from.y, sight.to.y].map((y) => clamp(Math.floor(y / ky / tileSize), lastRow)) as [number, number];
    for (let row = r0; row <= r1; row++) {
      for (let column = c0; column <= c1; column++) {
        const image = this.tile(level, column, row);
        if (image) canvas.drawImage(image, column * tileSize * kx, row * tileSize * ky, image.naturalWidth * kx, image.naturalHeight * ky);
      }
    }
  }

  private inSight(placement: Transform, { width, height }: Size): { from: Point; to: Point } {
    const back = inverse(placement);
    const corners = [
      [0, 0],
      [width, 0],
      [width, height],
      [0, height],
    ].map(([x, y]) => apply(back, { x, y } as Point));
    const [xs, ys] = [corners.map((p) => p.x), corners.map((p) => p.y)];
    return { from: { x: Math.min(...xs), y: Math.min(...ys) }, to: { x: Math.max(...xs), y: Math.max(...ys) } };
  }
}
