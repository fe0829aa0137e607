/**
 * Scans of die lines of cartons, one for every number: five kinds, creases with a dash or a gap first, in one colour and in two,
 * solid creases told apart by their colour alone, at 150 to 600 dpi, tilted.
 */
import { inverse, type Path, type Transform } from '@nuvet/core/plane';
import type { ColourPicture, GreyPicture } from '@nuvet/core/raster';
import { type Carton, cartonInk, cartonKinds, cartonOf } from './cartons.ts';
import { scanColours } from './colour-scan.ts';
import { penStroke } from './line-figures.ts';
import { randomFrom } from './random.ts';
import { scanScene } from './scan.ts';
import type { ScenePiece } from './scene.ts';

export interface CartonScan {
  readonly carton: Carton;
  readonly isDashFirst: boolean;
  readonly dpi: number;
  readonly tiltDegrees: number;
  /** In two colours, cuts and creases; or null for ink. */
  readonly colours: readonly [string, string] | null;
  readonly picture: GreyPicture | ColourPicture;
  readonly mmPerPx: number;
  /** From the picture, px, y down, to the sheet, mm, y up. */
  readonly toSheet: Transform;
}

export interface CartonScanSettings {
  readonly dpi?: number;
  readonly isInTwoColours?: boolean;
  /** Creases without gaps, which only their colour tells from cuts. */
  readonly hasSolidCreases?: boolean;
}

const [black, red] = [[30, 30, 34], [200, 40, 40]] as const; // biome-ignore format: two inks
const resolutions = [150, 300, 200, 300, 400, 600] as const;

export function cartonScan(number: number, settings: CartonScanSettings = {}): CartonScan {
  const random = randomFrom(100 + number);
  const kind = cartonKinds[number % cartonKinds.length] as Carton['kind'];
  const round = Math.floor(number / cartonKinds.length);
  const isDashFirst = round % 2 === 0;
  const isInTwoColours = settings.isInTwoColours ?? Math.floor(round / 2) % 2 === 1;
  const dpi = settings.dpi ?? (resolutions[round % resolutions.length] as number);
  const size = { widthMm: 30 + 30 * random(), depthMm: 16 + 16 * random(), heightMm: 34 + 36 * random(), boardMm: 0.4 + 0.8 * random() };
  const slitMm = random() < 0.5 ? 0 : 1 + random();
  const tiltDegrees = -8 + 16 * random();
  // A line that is less than three pixels wide has no middle to speak of.
  const penMm = Math.max(0.5 + 0.4 * random(), (3.2 * 25.4) / dpi);
  const dashing = { dashMm: 2.4 + 2 * random(), gapMm: 1.4 + 0.8 * random(), isDashFirst };
  const carton = cartonOf(kind, size, slitMm);
  const { widthMm, heightMm } = carton.sheet;
  const sheet = { widthMm: widthMm + 0.15 * heightMm, heightMm: heightMm + 0.15 * widthMm };
  const dashed = cartonInk(carton, dashing, penMm);
  const ink = settings.hasSolidCreases ? { ...dashed, creases: carton.creases.map((path) => penStroke(path, penMm)) } : dashed;
  const common = { dpi, tiltDegrees, seed: number + 1 };
  const paths = (pieces: readonly ScenePiece[]): Path[] => pieces.flatMap(({ outer, holes }) => [outer, ...holes]);
  const { picture, toPixels } = isInTwoColours
    ? scanColours(
        { ...sheet, paper: [240, 238, 230], areas: [{ paths: paths(ink.cuts), rgb: black }, { paths: paths(ink.creases), rgb: red }] }, // biome-ignore format: one line
        common,
      )
    : scanScene({ name: 'carton', ...sheet, pieces: [...ink.cuts, ...ink.creases] }, common);
  const colours = isInTwoColours ? (['#1e1e22', '#c82828'] as const) : null;
  return { carton, isDashFirst, dpi, tiltDegrees, colours, picture, mmPerPx: 25.4 / dpi, toSheet: inverse(toPixels) };
}
