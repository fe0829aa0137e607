/**
 * Things of known height photographed on the scale card, from 40 to 120 cm and at up to 20 degrees: their outlines against the plan that they
 * were drawn from, and trays made of them.
 */
import { type Piece, plainStock, seenFrom } from '@nuvet/core/job';
import { type Path, type Point, pathArea, pathBox, polygonOf, polygonPath, rectanglePath, reversedPath } from '@nuvet/core/plane';
import { distanceTo } from '@nuvet/core/shape';
import { finished } from '@nuvet/core/steps';
import { plainTray, type TraySettings, trayPlan, trueOutline } from '@nuvet/core/tray';
import fc from 'fast-check';
import ConvexHull from 'jsts/org/locationtech/jts/algorithm/ConvexHull.js';
import BufferOp from 'jsts/org/locationtech/jts/operation/buffer/BufferOp.js';
import OverlayOp from 'jsts/org/locationtech/jts/operation/overlay/OverlayOp.js';
import { describe, expect, it } from 'vitest';
import { apart, edgeOfThing, heightOfThing, p, photographed, round, things, tools } from './photographed-things.ts';
import { polygonFrom } from './polygons-of-jsts.ts';
import { lawRuns } from './random-laws.ts';
import { number } from './random-outlines.ts';

describe('a photograph on the scale card', () => {
  it('is traced without the markers, and without the table around the paper', () => {
    const { pieces } = photographed({ tiltDegrees: 12, leanDegrees: 200, focalShare: 1.5 });
    const markers = pieces.filter(({ outer }) => Math.abs(pathArea(outer) - 900) < 60);
    expect(markers).toHaveLength(4);
    expect(markers.every(({ leftOut }) => leftOut)).toBe(true);
    const [ground] = pieces.filter(({ holes }) => holes.some((hole) => Math.abs(pathArea(hole)) > 100_000));
    expect(ground?.leftOut).toBe(true);
    expect(pieces.filter(({ leftOut }) => !leftOut)).toHaveLength(things.length);
  });
});

describe('things of known height in a photograph', () => {
  it.each([
    [20, 70, 0.8, things],
    [12, 200, 1.5, things],
    [18, 300, 2.2, things],
    [14, 250, 1.1, tools],
  ] as const)(
    'tilted by %i degrees towards %i, with a lens of %f: the camera is found, and outlines are within 0.5 mm',
    (tiltDegrees, leanDegrees, focalShare, laid) => {
      const { photo, picture, shown, home } = photographed({ tiltDegrees, leanDegrees, focalShare }, laid);
      const seen = seenFrom(picture, null) as NonNullable<ReturnType<typeof seenFrom>>;
      const { camera, heightErrorMm } = seen;
      expect(Math.abs(camera.z - photo.camera.z)).toBeLessThan(4 * (heightErrorMm as number) + 1);
      expect(Math.hypot(camera.x - home.x - photo.camera.x, camera.y - home.y - photo.camera.y)).toBeLessThan(0.01 * photo.camera.z);
      expect(camera.tilt).toBeCloseTo((tiltDegrees * Math.PI) / 180, 2);
      let plain = 0;
      for (const { thing, truth, piece } of shown) {
        plain = Math.max(plain, apart(piece.outer, truth));
        const [made] = trueOutline({ outer: piece.outer, holes: [] }, camera, heightOfThing(thing), edgeOfThing(thing));
        expect(apart((made as { outer: Path }).outer, truth)).toBeLessThan(0.25);
      }
      // What flattening alone leaves.
      expect(plain).toBeGreaterThan(3);
    },
  );
  it('seen straight from above the perspective tells no height: a typed one does', () => {
    const { photo, picture, shown } = photographed({ tiltDegrees: 0, leanDegrees: 0, focalShare: 1.2 });
    expect(seenFrom(picture, null)).toBeNull();
    const { camera } = seenFrom(picture, photo.camera.z) as NonNullable<ReturnType<typeof seenFrom>>;
    expect(camera.z).toBeCloseTo(photo.camera.z, 6);
    for (const { thing, truth, piece } of shown) {
      const [made] = trueOutline({ outer: piece.outer, holes: [] }, camera, heightOfThing(thing), edgeOfThing(thing));
      expect(apart((made as { outer: Path }).outer, truth)).toBeLessThan(0.25);
    }
    const pieces = shown.map(({ piece }, k) => ({ ...piece, id: `${k}` }));
    const { notes } = finished(trayPlan(pieces, [{ picture, pieceIds: pieces.map(({ id }) => id), scale: 1 }], plainTray, plainStock));
    expect(notes.some(({ isFailure, message }) => isFailure && /how high the camera was/.test(message))).toBe(true);
  });
});

describe('the true outline of what is seen', () => {
  const eye = { x: 0, y: 0, z: 600 };
  /** What the eye sees of a convex block, on the sheet: the hull of its foot and of its top, as jsts has it. */
  const shadowOf = (block: readonly Point[], height: number) => {
    const grow = eye.z / (eye.z - height);
    const tops = block.map((q) => p(q.x * grow, q.y * grow));
    return new ConvexHull(OverlayOp.union(polygonFrom({ outer: polygonPath(block), holes: [] }), polygonFrom({ outer: polygonPath(tops), holes: [] }))).getConvexHull(); // biome-ignore format: one line
  };
  const outlineOf = (shadow: ReturnType<typeof shadowOf>): Path => {
    const path = polygonPath(shadow.getCoordinates().slice(0, -1).map((q: Point) => p(q.x, q.y))); // biome-ignore format: one line
    return pathArea(path) > 0 ? path : reversedPath(path);
  };
  it('of any upright angle of two blocks is the angle, its inner corner, too', () => {
    fc.assert(
      fc.property(number(-200, 200), number(-200, 200), number(0, 6.2), number(5, 40), (x, y, angle, height) => {
        const [c, s] = [Math.cos(angle), Math.sin(angle)];
        const at = (u: number, v: number): Point => p(x + u * c - v * s, y + u * s + v * c);
        const [leg, arm] = [
          [at(0, 0), at(70, 0), at(70, 20), at(0, 20)],
          [at(0, 0), at(20, 0), at(20, 80), at(0, 80)],
        ];
        const seen = outlineOf(OverlayOp.union(shadowOf(leg, height), shadowOf(arm, height)));
        const parts = trueOutline({ outer: seen, holes: [] }, eye, height, 'upright');
        expect(parts).toHaveLength(1);
        const angled = polygonPath([at(0, 0), at(70, 0), at(70, 20), at(20, 20), at(20, 80), at(0, 80)]);
        // Where the shadow of one arm hides the corner nothing tells it: it is off by less than what the shadow is longer by.
        expect(apart((parts[0] as { outer: Path }).outer, angled)).toBeLessThan(0.05);
      }),
      { numRuns: lawRuns(60) },
    );
  });
  it('of any upright block is the block: its shadow from the eye, as jsts has it, goes back', () => {
    fc.assert(
      fc.property(
        number(-250, 250),
        number(-250, 250),
        number(10, 60),
        number(6, 30),
        number(0, 3),
        number(5, 80),
        (x, y, long, wide, angle, height) => {
          const [c, s] = [Math.cos(angle), Math.sin(angle)];
          const block = [[-1, -1], [1, -1], [1, 1], [-1, 1]].map(([u, v]) => p(x + (u as number) * long * c - (v as number) * wide * s, y + (u as number) * long * s + (v as number) * wide * c)); // biome-ignore format: one line
          const seen = outlineOf(shadowOf(block, height));
          const [made, ...more] = trueOutline({ outer: seen, holes: [] }, eye, height, 'upright');
          expect(more).toEqual([]);
          expect(apart((made as { outer: Path }).outer, polygonPath(block))).toBeLessThan(1e-3);
        },
      ),
      { numRuns: lawRuns(80) },
    );
  });
  it('of a ball is a circle: its shadow is an ellipse by the tangent cone', () => {
    for (const [x, y, r] of [
      [0, 0, 10],
      [200, 0, 15],
      [-120, 160, 25],
    ] as const) {
      const away = Math.hypot(x, y);
      // Rays to both sides of the ball, in the upright plane through eye and ball, and square to it.
      const [slant, half] = [Math.atan2(away, eye.z - r), Math.asin(r / Math.hypot(away, eye.z - r))];
      const [near, far] = [eye.z * Math.tan(slant - half), eye.z * Math.tan(slant + half)];
      const middle = (near + far) / 2;
      const cosine = Math.cos(half);
      const places = Array.from({ length: 720 }, (_, k) => {
        // A ray of the cone, turned about its axis.
        const turn = (k * Math.PI) / 360;
        const [u, v, w] = [Math.sin(half) * Math.cos(turn), Math.sin(half) * Math.sin(turn), cosine];
        const [along, down] = [u * Math.cos(slant) + w * Math.sin(slant), w * Math.cos(slant) - u * Math.sin(slant)];
        const q = p((along / down) * eye.z, (v / down) * eye.z);
        const [c, s] = away > 0 ? [x / away, y / away] : [1, 0];
        return p(q.x * c - q.y * s, q.x * s + q.y * c);
      });
      expect(middle).toBeGreaterThanOrEqual(0);
      const seen = polygonPath(places);
      const [made] = trueOutline({ outer: pathArea(seen) > 0 ? seen : polygonPath(places.reverse()), holes: [] }, eye, 2 * r, 'round');
      expect(apart((made as { outer: Path }).outer, polygonPath(round(p(x, y), r)))).toBeLessThan(0.02);
    }
  });
  it('of something flat is what is seen', () => {
    const flat = { outer: rectanglePath({ minX: 10, minY: 10, maxX: 50, maxY: 30 }), holes: [] };
    expect(trueOutline(flat, eye, 0, 'upright')).toEqual([flat]);
  });
});

describe('a tray', () => {
  const piece = (id: string, minX: number, minY: number, wide: number, high: number): Piece => ({ id, name: id, purpose: 'cut', leftOut: false, runsOff: false, outer: rectanglePath({ minX, minY, maxX: minX + wide, maxY: minY + high }), holes: [] }); // biome-ignore format: one line
  const tools = [piece('file', 0, 0, 160, 14), piece('square', 30, 40, 90, 30), piece('hammer', 0, 90, 200, 40)];
  const planned = (settings: Partial<TraySettings>, pieces = tools) => finished(trayPlan(pieces, [], { ...plainTray, notchMm: 0, ...settings }, plainStock)); // biome-ignore format: one line
  it('has pockets larger by the clearance all round, as jsts grows them, where they lay', () => {
    const { pockets, notes } = planned({ clearanceMm: 1.5 });
    expect(notes.filter(({ isFailure }) => isFailure)).toEqual([]);
    pockets.forEach(({ pocket, outline }) => {
      const grown = BufferOp.bufferOp(polygonFrom({ outer: outline.outer, holes: [] }), 1.5, 64);
      expect(Math.abs(pathArea(pocket.outer) - grown.getArea())).toBeLessThan(0.02);
    });
    const [a, b] = pockets.map(({ at }) => at) as [Point, Point];
    expect([b.x - a.x, b.y - a.y]).toEqual([expect.closeTo(-5, 6), expect.closeTo(48, 6)]);
  });
  it('has a notch as wide as asked across each object where it balances, or where it was moved to', () => {
    const [, , plain] = planned({}).pockets;
    const notched = planned({
      notchMm: 24,
      objects: [{ pieceId: 'hammer', heightMm: null, edge: null, depthMm: null, notchAt: 0.25, place: null }],
    }).pockets[2];
    const box = pathBox(notched?.pocket.outer as Path);
    // A slot's ends stand half its width over either side.
    expect(box.maxY - box.minY).toBeCloseTo(40 + 24, 6);
    const size = pathBox(plain?.pocket.outer as Path);
    expect(Math.abs((notched?.notchMiddle?.x ?? 0) - box.minX)).toBeCloseTo((size.maxX - size.minX - 1) / 4 + 0.5, 6);
  });
  it('rounds corners to the cutter, and says where an object would not go in for them', () => {
    const r = 4;
    const { pockets, notes } = planned({ clearanceMm: 0.2, cutterMm: 2 * r });
    const grown = BufferOp.bufferOp(polygonFrom({ outer: pockets[0]?.outline.outer as Path, holes: [] }), 0.2, 64).getArea();
    // A round tool leaves (1 - pi / 4) r² in each square corner; the corners of what is grown are round by the clearance already.
    expect(grown - pathArea(pockets[0]?.pocket.outer as Path)).toBeCloseTo(4 * (1 - Math.PI / 4) * (r * r - 0.2 * 0.2), 2);
    const tight = notes.filter(({ message }) => /too round/.test(message));
    expect(tight.length).toBe(3);
    // From the corner to the tool's round: (r - c) (sqrt 2 - 1), less what the clearance leaves free.
    expect(tight[0]?.message).toContain(`${Math.round(((r - 0.2) * Math.SQRT2 - r) * 1000) / 1000}`.slice(0, 4));
  });
  it('lays them close together without walls thinner than asked', () => {
    const { pockets, notes } = planned({ layout: 'close together', wallMm: 8, widthMm: 230, lengthMm: 140 });
    expect(notes.filter(({ isFailure }) => isFailure)).toEqual([]);
    for (const [k, { pocket }] of pockets.entries())
      for (const { pocket: other } of pockets.slice(0, k)) expect(apartLeast(pocket.outer, other.outer)).toBeGreaterThan(8 - 0.02);
  });
  it('cuts each sheet as far down as objects lie in it, and says where whole sheets make another depth', () => {
    const { layers, notes } = planned({ layersMm: [10, 10, 10], objects: [own('file', 4), own('square', 20), own('hammer', 30)] });
    expect(layers.map(({ pockets }) => pockets.length)).toEqual([3, 2, 1]);
    expect(notes.map(({ message }) => message)).toEqual([expect.stringMatching(/“file” lies 10 mm deep in whole sheets, not 4 mm/)]);
  });
  it('leaves out the ground that others lie in, and what it drew itself', () => {
    const ground: Piece = { ...piece('ground', -50, -50, 500, 400), holes: [reversedPath(rectanglePath({ minX: -40, minY: -40, maxX: 440, maxY: 340 }))] }; // biome-ignore format: one line
    const own: Piece = { ...piece('tray-sheet', 600, 0, 300, 200) };
    expect(planned({}, [ground, ...tools, own]).pockets.map(({ name }) => name)).toEqual(['file', 'square', 'hammer']);
  });
  it('names what does not fit, what lies too near, and numbers that stand in no pocket', () => {
    const small = planned({ widthMm: 150, lengthMm: 120 });
    expect(small.notes.some(({ message }) => /“hammer” reaches .* over the drawer/.test(message))).toBe(true);
    const over = planned({ objects: [{ ...own('file', 10), place: { at: p(200, 150), turn: 0 } }, { ...own('square', 10), place: { at: p(200, 155), turn: 0 } }] }); // biome-ignore format: one line
    expect(over.notes.some(({ message, isFailure }) => isFailure && /Between “file” and “square” 0 mm/.test(message))).toBe(true);
    const numbers = planned({}).pockets.flatMap(({ numeral }) => numeral);
    expect(numbers.length).toBeGreaterThanOrEqual(3);
    const away = distanceTo(planned({}).pockets.map(({ pocket }) => pocket.outer));
    for (const { start } of numbers) expect(away(start)).toBeGreaterThan(1);
    expect(() => planned({}, [])).toThrow(/nothing to lay in a tray/);
  });

  const own = (pieceId: string, depthMm: number) => ({ pieceId, heightMm: null, edge: null, depthMm, place: null });
  const apartLeast = (a: Path, b: Path): number =>
    Math.min(...polygonOf(b, 0.01).map(distanceTo([a])), ...polygonOf(a, 0.01).map(distanceTo([b])));
});
