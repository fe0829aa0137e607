/** Photographs through lenses that bend: what straight edges tell of them, how exact places come out, and what is no lens. */
import { bent, circlePath, type Path, type Point, project, unbent } from '@nuvet/core/plane';
import { bentEdges, greyPicture, inkContours, unbentPixels } from '@nuvet/core/raster';
import { findScaleCard, fitTrueUp, lensOfEdges, lensOfPhotograph, type TrueUpMark } from '@nuvet/core/trueup';
import { onScaleCard, photographScene, plateScene, randomFrom, type Scene } from '@nuvet/truth';
import { describe, expect, it } from 'vitest';

const a4: Scene = { ...plateScene, widthMm: 297, heightMm: 210 };
const corners: Point[] = [{ x: 0, y: 0 }, { x: 297, y: 0 }, { x: 297, y: 210 }, { x: 0, y: 210 }]; // biome-ignore format: one line
const size = { widthPx: 1800, heightPx: 1350 };
const inPixels = { width: size.widthPx, height: size.heightPx };
const edgesIn = (picture: Parameters<typeof inkContours>[0]) => bentEdges(inkContours(picture), 0.12 * Math.hypot(picture.width, picture.height), picture); // biome-ignore format: one line
const frameOf = (points: readonly Point[]): TrueUpMark => ({ kind: 'frame', id: 'sheet', points: [...points], stated: [297, 210] });

/** How far places all over a sheet are off, mm, at most, against the corner that the fit begins at. */
function worstOf(projection: Parameters<typeof project>[0], at: (p: Point) => Point, home: Point, scene = a4): number {
  let worst = 0;
  const origin = project(projection, at(home));
  for (let x = 5; x < scene.widthMm; x += 24)
    for (let y = 5; y < scene.heightMm; y += 20) {
      const q = project(projection, at({ x, y }));
      worst = Math.max(worst, Math.hypot(q.x - origin.x - (x - home.x), q.y - origin.y - (y - home.y)));
    }
  return worst;
}

describe('the division model', () => {
  it('bends and unbends places to one another, and keeps its centre', () => {
    for (const k of [-0.2, -0.03, 0, 1e-9, 0.08, 0.2]) {
      const lens = { k, centre: { x: 400, y: 300 }, radiusPx: 500 };
      for (const p of [
        { x: 400, y: 300 },
        { x: 0, y: 0 },
        { x: 777, y: 111 },
      ]) {
        const q = bent(lens, unbent(lens, p));
        expect([q.x, q.y]).toEqual([expect.closeTo(p.x, 8), expect.closeTo(p.y, 8)]);
      }
    }
    // A place at the distance that k is stated for moves by its share of 1 / (1 + k).
    expect(unbent({ k: 0.25, centre: { x: 0, y: 0 }, radiusPx: 100 }, { x: 100, y: 0 }).x).toBeCloseTo(80, 12);
  });
});

describe('a sheet photographed through a lens, its corners known', () => {
  const cases = Array.from({ length: 10 }, (_, k) => {
    const random = randomFrom(900 + k);
    return { lensK: Number((0.16 * random() - 0.08).toFixed(3)), tiltDegrees: Math.round(25 * random()), leanDegrees: Math.round(360 * random()), noise: 2 + 5 * random(), seed: k + 1 }; // biome-ignore format: one line
  });
  it.each(cases)(
    'bent by $lensK, tilted $tiltDegrees degrees: places within 0.15 mm over A4, and the stated bend within three errors',
    (settings) => {
      const photo = photographScene(a4, { ...size, ...settings });
      const seen = corners.map(photo.at);
      const lens = lensOfPhotograph(edgesIn(photo.picture), [seen], photo.picture);
      const { lensK } = settings;
      if (Math.abs(lensK) > 0.004) expect(lens).not.toBeNull();
      expect(Math.abs((lens?.k ?? 0) - lensK)).toBeLessThan(Math.max(3 * (lens?.standardError ?? 0), 0.0015));
      const at = (p: Point): Point => (lens ? unbent(lens, photo.at(p)) : photo.at(p));
      const fit = fitTrueUp(size, [frameOf(corners.map(at))], null, { pinned: null });
      expect(worstOf(fit.projection, at, { x: 0, y: 0 })).toBeLessThan(0.15);
    },
  );
  it('nothing is taken out of one through a lens that bends nothing', () => {
    for (const seed of [1, 2, 3])
      expect(lensOfEdges(edgesIn(photographScene(a4, { ...size, tiltDegrees: 8 * seed, seed }).picture), inPixels)).toBeNull();
  });
});

describe('the scale card in such a photograph', () => {
  it('gives lengths over the whole sheet within 0.15 mm, where it gave more than half a millimetre', () => {
    const scene = onScaleCard(plateScene, { x: 45, y: 100 });
    const photo = photographScene(scene, {
      widthPx: 3000,
      heightPx: 4000,
      tiltDegrees: 12,
      turnDegrees: 8,
      leanDegrees: 30,
      lensK: -0.05,
      seed: 3,
    });
    const lens = lensOfPhotograph(edgesIn(photo.picture), [], photo.picture);
    expect(lens?.k).toBeCloseTo(-0.05, 2);
    const worst = (grey: typeof photo.picture, at: (p: Point) => Point): number => {
      const card = findScaleCard(grey);
      if (!card) throw new Error('no card');
      const mark: TrueUpMark = { kind: 'scale-card', id: 'card', points: card.points, places: card.places, stated: [100] };
      const fit = fitTrueUp({ widthPx: grey.width, heightPx: grey.height }, [mark], null, { pinned: null });
      // The sheet lies turned as the card does: lengths tell.
      const [p, q] = [{ x: 10, y: 10 }, { x: scene.widthMm - 10, y: scene.heightMm - 10 }].map((place) => project(fit.projection, at(place))) as [Point, Point]; // biome-ignore format: one line
      return Math.abs(Math.hypot(q.x - p.x, q.y - p.y) - Math.hypot(scene.widthMm - 20, scene.heightMm - 20));
    };
    const { pixels, at } = unbentPixels(
      { width: photo.picture.width, height: photo.picture.height, grey: photo.picture.data, colour: null },
      lens as NonNullable<typeof lens>,
    );
    const after = worst(greyPicture(pixels.grey, pixels.width, pixels.height), (p) => at(photo.at(p)));
    expect(worst(photo.picture, photo.at)).toBeGreaterThan(0.5);
    expect(after).toBeLessThan(0.15);
  });
});

describe('what is no lens', () => {
  /** A pillow: four sides that bulge. */
  const pillow: Path = { start: { x: 60, y: 50 }, segments: [{ kind: 'arc', to: { x: 240, y: 50 }, sweep: 0.12 }, { kind: 'arc', to: { x: 240, y: 160 }, sweep: 0.12 }, { kind: 'arc', to: { x: 60, y: 160 }, sweep: 0.12 }, { kind: 'arc', to: { x: 60, y: 50 }, sweep: 0.12 }], closed: true }; // biome-ignore format: one line
  it('a shape that bulges on a sheet whose sides are straight', () => {
    const scene: Scene = { ...a4, pieces: [{ outer: pillow, holes: [] }] };
    const photo = photographScene(scene, { ...size, tiltDegrees: 10 });
    expect(lensOfPhotograph(edgesIn(photo.picture), [corners.map(photo.at)], photo.picture)).toBeNull();
  });
  it('discs alone, and too few edges', () => {
    const discs: Scene = { ...a4, pieces: [60, 150, 240].map((x) => ({ outer: circlePath({ x, y: 105 }, 38), holes: [] })) };
    const photo = photographScene(discs, { ...size, tiltDegrees: 5, fill: 1.4 });
    expect(lensOfEdges(edgesIn(photo.picture), inPixels)).toBeNull();
    expect(lensOfEdges([], inPixels)).toBeNull();
  });
});
