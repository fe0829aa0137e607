/** Formers cut by hot wire: one way round all their loops, half the burn outside, as a wire of its own leaves them; ticks; the build sheet. */
import { bodyOf, foamPlan, foamSchema, formerWire, matchedTicks, plainFoam, type Slice, slicesOf, towerPath } from '@nuvet/core/foam';
import { readPdfPaths, readWireProgram, writeWireProgram } from '@nuvet/core/formats';
import { type Piece, plainMachine, plainStock } from '@nuvet/core/job';
import { circlePath, distance, ellipsePath, nearestOnPath, type Path, type Point, pathLength, polygonOf, rectanglePath, reversedPath, transformedPath } from '@nuvet/core/plane'; // biome-ignore format: one line
import { processKinds } from '@nuvet/core/processes';
import { windingNumber } from '@nuvet/core/shape';
import { finished } from '@nuvet/core/steps';
import { HotWire } from '@nuvet/cutter/hot-wire';
import { WireWork, wireSetUpSchema } from '@nuvet/cutter/wire-work';
import { demoJobs } from '@nuvet/truth';
import { describe, expect, it } from 'vitest';

const body = bodyOf({ side: ellipsePath({ x: 300, y: 50 }, 300, 50, 0), above: ellipsePath({ x: 300, y: 400 }, 300, 70, 0), nose: 'left' }, { topExponent: 2, bottomExponent: 2, widestAt: 0.5 }); // biome-ignore format: one line
const slices = finished(slicesOf(body, { boards: [{ thicknessMm: 30, count: null }], glueMm: 0, cutTo: 'larger', sandingMm: 0, shellMm: 15, dowels: [{ across: 0, up: 8, diameterMm: 6 }] })); // biome-ignore format: one line
const burn = { burnMm: 0.9, marginMm: 20 };

/** What a wire of its own leaves of a former, against its outline and its holes, mm. */
function offBy({ outline, holes, thicknessMm }: Pick<Slice, 'outline' | 'holes' | 'thicknessMm'>): number {
  const way = formerWire({ outline, holes }, burn);
  if (!way) return Infinity;
  const places = way.places.map((at, k) => ({ root: at, tip: at, minutes: k === 0 ? 0 : distance(way.places[k - 1] as Point, at) / 300 }));
  const towers = towerPath(places, { betweenMm: 600, toFoamMm: 200, spanMm: thicknessMm, isTipLeft: false });
  const wire = new HotWire({ betweenMm: 600, toBlockMm: 200, spanMm: thicknessMm, axes: ['U', 'V'], burnMm: burn.burnMm, burnMm2PerMin: 0, fastestMmPerMin: 1000 }); // biome-ignore format: one line
  for (const line of writeWireProgram(towers, { title: 'former', axes: 'UV', warmUpS: 4 }).split('\n')) wire.read(line);
  // Where a slit opens the outline is cut by it.
  const isBeside = (p: Point): boolean => way.slits.some(([a, b]) => nearestOnPath({ start: a, segments: [{ kind: 'line', to: b }], closed: false }, p).distance < 1.5); // biome-ignore format: one line
  return Math.max(
    ...[outline, ...holes].map(
      (path) =>
        wire.offBy(
          0.5,
          middles(path).filter((p) => !isBeside(p)),
        ).mostMm,
    ),
  );
}

/** Places in the middle of chords. */
const middles = (path: Path): Point[] => {
  const points = polygonOf(path, 0.02);
  return points.map((p, k) => {
    const q = points[(k + 1) % points.length] as Point;
    return { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 };
  });
};
describe('the wire round a former', () => {
  it('is one way, in and out at the edge of the block, once round every loop; slits as short as may be', () => {
    for (const slice of slices.slice(4, 16)) {
      const way = formerWire(slice, burn) as NonNullable<ReturnType<typeof formerWire>>;
      expect(way.places[0]).toEqual(way.places.at(-1));
      const loops = pathLength(slice.outline) + slice.holes.reduce((sum, hole) => sum + pathLength(hole), 0);
      // Round the outside half the burn farther out, in holes half of it farther in.
      const around = loops + Math.PI * burn.burnMm * (1 - slice.holes.length);
      expect(Math.abs(way.lengthMm - way.slitMm - around)).toBeLessThan(0.2);
      // The shell is 15 mm thick and the dowel hole lies in it: no slit is longer than what lies between.
      expect(way.slitMm).toBeLessThan(2 * (20 + 20 * slice.holes.length));
    }
  });
  it('leaves the former within 0.02 mm, as a wire that knows only the program melts it', () => {
    for (const slice of [slices[5], slices[9], slices[14]] as Slice[]) expect(offBy(slice)).toBeLessThan(0.02);
  });
  it('of the otter float, its views drawn 48 inches long, leaves every former so', () => {
    const scale = 1219.2 / 165.4;
    const float = demoJobs.find(({ name }) => name === 'Paddle-otter float');
    const [side, , above] = (float as NonNullable<typeof float>).scene.pieces as unknown as [{ outer: Path }, unknown, { outer: Path }];
    const grown = (path: Path): Path => transformedPath(path, { a: scale, b: 0, c: 0, d: scale, e: 0, f: 0 });
    const piece = (id: string, outer: Path): Piece => ({ id, name: id, purpose: 'cut', leftOut: false, runsOff: false, outer: grown(outer), holes: [] }); // biome-ignore format: one line
    const settings = foamSchema.parse({ ...plainFoam, sideId: 'side', aboveId: 'above', nose: 'right', boards: [{ thicknessMm: 58, count: 13 }, { thicknessMm: 40, count: null }], glueMm: 0.5, shellMm: 25 }); // biome-ignore format: one line
    const { slices: formers, lengthMm } = finished(
      foamPlan([piece('side', side.outer), piece('above', above.outer)], settings, plainStock),
    );
    expect(lengthMm).toBeCloseTo(1219, -1);
    expect(formers.length).toBeGreaterThan(20);
    // Corners of a hollow come out as round as the wire melts.
    for (const former of formers.slice(1, -2)) expect(offBy(former)).toBeLessThan(0.1);
  });
  it('of one too small for the wire is none', () => {
    expect(formerWire({ outline: circlePath({ x: 0, y: 0 }, 3), holes: [] }, { burnMm: 0.9, marginMm: 5 })).not.toBeNull();
    expect(formerWire({ outline: reversedPath(rectanglePath({ minX: 0, minY: 0, maxX: 0.0001, maxY: 0.0001 })), holes: [] }, { burnMm: 0, marginMm: 5 })?.lengthMm ?? 0).toBeLessThan(11); // biome-ignore format: one line
  });
});

describe('ticks on both faces', () => {
  it('answer to one another at even shares of their length', () => {
    const { lines, numbers } = matchedTicks(circlePath({ x: 0, y: 50 }, 50), circlePath({ x: 0, y: 50 }, 40), 20);
    expect(lines).toHaveLength(40);
    for (let k = 0; k < 20; k++) {
      const [a, b] = [lines[2 * k]?.start, lines[2 * k + 1]?.start] as [Point, Point];
      const [u, v] = [Math.atan2(a.y - 50, a.x), Math.atan2(b.y - 50, b.x)];
      expect(Math.abs(Math.sin(u - v))).toBeLessThan(0.02);
    }
    expect(numbers.map(({ number }) => number)).toEqual([0, 5, 10, 15]);
    for (const { segments } of lines) expect(windingNumber([circlePath({ x: 0, y: 50 }, 50)], segments[0]?.to as Point)).not.toBe(0);
  });
});

describe('the files of a body', () => {
  const kind = processKinds.foam as (typeof processKinds)[string];
  const view = (id: string, outer: Path): Piece => ({ id, name: id, purpose: 'cut', leftOut: false, runsOff: false, outer, holes: [] });
  const work = {
    title: 'Reed float',
    pieces: [view('side', ellipsePath({ x: 300, y: 50 }, 300, 50, 0)), view('above', ellipsePath({ x: 300, y: 400 }, 300, 70, 0))],
    settings: { ...plainFoam, sideId: 'side', aboveId: 'above', boards: [{ thicknessMm: 50, count: null }], shellMm: 15 },
    machine: plainMachine,
    stock: plainStock,
  };
  const plan = finished(kind.plan(work));
  const made = async (name: string) => (kind.files[name] as NonNullable<(typeof kind.files)[string]>).make(work, plan, { dpi: 96, underlay: null }); // biome-ignore format: one line
  it('a program for the wire for each former, each read back', async () => {
    const { part, further = [], largestMm } = await made('wire');
    expect([part, ...further.map((one) => one.part)]).toEqual(Array.from({ length: 12 }, (_, k) => String(k + 1).padStart(2, '0')));
    expect(largestMm).toBeLessThan(1e-4);
    for (const { bytes } of further) expect(readWireProgram(new TextDecoder().decode(bytes), 'UV').length).toBeGreaterThan(50);
  });
  it('what the wire that stands in is sent: a block for each former, which comes out as it should where the wire can reach', async () => {
    const job = await kind.standIn?.(work, plan);
    const blocks = job?.wire?.blocks ?? [];
    expect(blocks.map(({ name }) => name)[2]).toBe('foam for former 3, 50.00 mm thick, at least 162 x 127 mm');
    for (const k of [0, 5, 11]) {
      const { setUp, faces } = blocks[k] as (typeof blocks)[number];
      const wire = new WireWork(wireSetUpSchema.parse(setUp));
      for (const line of (job?.programs[k]?.text ?? '').trimEnd().split('\n')) {
        wire.read(line);
        while (!wire.isIdle) wire.pass(60);
      }
      const said = wire.command('measure', JSON.stringify(faces)) ?? '';
      expect((faces as { left: unknown[] }).left.length).toBeGreaterThan(40);
      expect(JSON.parse(said.slice('measured '.length))).toMatchObject({
        leftOffMm: expect.closeTo(0, 1),
        rightOffMm: expect.closeTo(0, 1),
      });
    }
  });
  it('a build sheet on which every former stands once, small', async () => {
    const { bytes } = await made('build');
    const pages = await readPdfPaths(bytes);
    // Twelve formers and their holes, in a grid of four by six.
    expect(pages.length).toBe(2);
  });
});
