/**
 * What lies on the stand-in's glass: the demo drawings, each laid down a little crooked, with some dust.
 */
import { circlePath } from '@nuvet/core/plane';
import { type GreyPicture, greyPicture } from '@nuvet/core/raster';
import { type DemoJob, demoJobs, piece, randomFrom, type Scene, scanScene } from '@nuvet/truth';

export interface Bed {
  readonly id: string;
  readonly name: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly scene: Scene;
  readonly tiltDegrees: number;
  readonly seed: number;
}

const specks = 26;

/** Dust: dark specks of a few hundredths to a few tenths of a millimetre. */
function dusty(scene: Scene, seed: number): Scene {
  const random = randomFrom(seed);
  const dust = Array.from({ length: specks }, () =>
    piece(circlePath({ x: random() * scene.widthMm, y: random() * scene.heightMm }, 0.05 + 0.15 * random() ** 3)),
  );
  return { ...scene, pieces: [...scene.pieces, ...dust] };
}

export const beds: readonly Bed[] = demoJobs.map(({ name, scene }: DemoJob, k) => ({
  id: scene.name,
  name: `Flatbed with “${name}”`,
  widthMm: scene.widthMm,
  heightMm: scene.heightMm,
  scene: dusty(scene, 400 + k),
  tiltDegrees: [0.8, -1.1, 1.6, -0.5][k % 4] as number,
  seed: 500 + k,
}));

export interface Area {
  readonly x: number;
  readonly y: number;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** A part of the glass as a scanner sees it; mm from its upper left corner. */
export function scanBed(bed: Bed, dpi: number, area: Area): GreyPicture {
  const { picture } = scanScene(bed.scene, { dpi, tiltDegrees: bed.tiltDegrees, seed: bed.seed, noise: 4 });
  const px = (mm: number) => Math.round((mm * dpi) / 25.4);
  const [left, top] = [Math.min(px(area.x), picture.width - 2), Math.min(px(area.y), picture.height - 2)];
  const width = Math.min(Math.max(2, px(area.widthMm)), picture.width - left);
  const height = Math.min(Math.max(2, px(area.heightMm)), picture.height - top);
  const data = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    const from = (top + y) * picture.width + left;
    data.set(picture.data.subarray(from, from + width), y * width);
  }
  return greyPicture(data, width, height);
}
