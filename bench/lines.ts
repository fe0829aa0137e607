/**
 * Middles of drawn lines, symmetries, and scans made under hard conditions: how far off the truth, how many found right.
 */
import { inverse, nearestOnPath, transformedPath } from '@nuvet/core/plane';
import { type GreyPicture, greyPicture } from '@nuvet/core/raster';
import { plainTraceSettings, symmetriesOf, tracePicture } from '@nuvet/core/trace';
import { deviationOf, fullSheetScene, linesScene, pngOf, scanScene, starScene } from '@nuvet/truth';
import sharp from 'sharp';

export async function measureLines(): Promise<void> {
  for (const settings of [
    { tiltDegrees: 0.7, noise: 4, seed: 11 },
    { tiltDegrees: -1.6, noise: 5, seed: 12 },
    { tiltDegrees: 3, noise: 6, seed: 13 },
  ]) {
    const scan = scanScene(linesScene, { dpi: 300, ...settings });
    const trace = tracePicture(scan.picture, scan.mmPerPx, { ...plainTraceSettings, take: 'network' });
    const paths = trace.pieces.map(({ outer }) => transformedPath(outer, inverse(scan.toPixels)));
    const { rmsMm } = deviationOf(paths, linesScene.middles);
    const joints = linesScene.junctions.map((p) =>
      Math.max(...paths.map((path) => nearestOnPath(path, p).distance).filter((d) => d < 0.3)),
    );
    console.log(
      `middles of lines of 0.9 mm, tilt ${settings.tiltDegrees.toFixed(1).padStart(4)}: ${paths.length} of ${linesScene.middles.length} paths, RMS ${rmsMm.toFixed(4)} mm, junctions within ${Math.max(...joints).toFixed(4)} mm`,
    );
    const star = scanScene(starScene, { dpi: 300, ...settings });
    const [piece] = tracePicture(star.picture, star.mmPerPx, plainTraceSettings).pieces;
    const outer = piece && transformedPath(piece.outer, inverse(star.toPixels));
    const [mirror] = outer ? symmetriesOf({ outer, holes: [] }, 0.05) : [];
    if (mirror?.kind === 'mirror')
      console.log(
        `  the star's axis: off by ${Math.abs((mirror.angle * 180) / Math.PI - 90).toFixed(4)} degrees and ${Math.abs(mirror.at.x - 55).toFixed(4)} mm`,
      );
  }
  await measureConditions();
}

type Spoil = (picture: GreyPicture, mmPerPx: number) => Promise<GreyPicture> | GreyPicture;

const shaded =
  (shade: (x: number, y: number) => number): Spoil =>
  ({ width, height, data }) =>
    greyPicture(
      data.map((v, k) => Math.max(0, v - shade((k % width) / width, Math.floor(k / width) / height))),
      width,
      height,
    );

const conditions: readonly (readonly [string, Parameters<typeof scanScene>[1], Spoil])[] = [
  ['light uneven by 60 levels', { dpi: 150 }, shaded((x, y) => 60 * (0.8 * x + 0.2 * y))],
  ['pencil grey on cream', { dpi: 150, ink: 118, paper: 216, noise: 6 }, shaded(() => 0)],
  ['ink bleed', { dpi: 150, softnessMm: 0.16, grain: 8 }, shaded(() => 0)],
  ['a fold’s shadow', { dpi: 150 }, shaded((x) => 70 * Math.exp(-(((x - 0.5) / 0.03) ** 2)))],
  ['JPEG at quality 40', { dpi: 150 }, jpeg40],
  ['ruled paper', { dpi: 150 }, (picture, mmPerPx) => ruled(picture, mmPerPx)],
];

async function jpeg40({ width, height, data }: GreyPicture): Promise<GreyPicture> {
  const bytes = await sharp(await pngOf({ width, height, data }, null))
    .jpeg({ quality: 40 })
    .toBuffer();
  const grey = await sharp(bytes).greyscale().raw().toBuffer();
  return greyPicture(new Uint8Array(grey), width, height);
}

/** Pale lines every 8 mm. */
function ruled({ width, height, data }: GreyPicture, mmPerPx: number): GreyPicture {
  return greyPicture(
    data.map((v, k) => ((Math.floor(k / width) * mmPerPx) % 8 < 0.3 ? Math.min(v, 178) : v)),
    width,
    height,
  );
}

/** Of the scans under each condition, how many give every piece and hole, and no speck. */
async function measureConditions(): Promise<void> {
  const rounds = 17;
  let [right, all] = [0, 0];
  for (const [name, settings, spoil] of conditions) {
    let found = 0;
    for (let seed = 1; seed <= rounds; seed++) {
      const scene = fullSheetScene(seed);
      const scan = scanScene(scene, { tiltDegrees: (seed % 7) - 3, seed, ...settings });
      const picture = await spoil(scan.picture, scan.mmPerPx);
      const { pieces } = tracePicture(picture, scan.mmPerPx, { ...plainTraceSettings, threshold: 'local' });
      const holes = (list: readonly { holes: readonly unknown[] }[]) => list.reduce((n, p) => n + p.holes.length, 0);
      if (pieces.length === scene.pieces.length && holes(pieces) === holes(scene.pieces)) found++;
    }
    right += found;
    all += rounds;
    console.log(`${name.padEnd(26)} ${found} of ${rounds} scans of 150 shapes found right, by the local threshold`);
  }
  console.log(`${'all told'.padEnd(26)} ${right} of ${all}`);
}
