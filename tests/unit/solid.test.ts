/** Bodies from outlines: volumes in closed form, closed whatever is drawn, edges as round as they are asked, files read back. */
/// <reference path="./lib3mf.d.ts" />
import lib3mf from '@3mfconsortium/lib3mf';
import { type NamedMesh, read3mf, readObj, readPly, readStl, write3mf, writeObj, writePly, writeStl } from '@nuvet/core/formats';
import { type Piece, plainMachine, plainStock } from '@nuvet/core/job';
import { circlePath, ellipsePath, type Path, polygonPath, rectanglePath, reversedPath } from '@nuvet/core/plane';
import { processKinds } from '@nuvet/core/processes';
import { type BodySetting, commonVolume, type EdgeSetting, eulerCharacteristic, type GreyOnSheet, loadSolids, type Mesh, openEdges, plainBody, plainSolid, prismOf, reliefSurface, type SolidSettings, sizeOf, solidPlan } from '@nuvet/core/solid'; // biome-ignore format: one line
import { finished } from '@nuvet/core/steps';
import { randomFrom } from '@nuvet/truth';
import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { lawRuns } from './random-laws.ts';

const fine = 0.002;
const sharp = { kind: 'sharp' } as const;
const straight = { fromMm: 0, toMm: 4, draft: 0, top: sharp, bottom: sharp };
const meshOf = (outer: Path, rule: object = {}, holes: readonly Path[] = [], chordMm = fine): Mesh => {
  const prism = prismOf({ outer, holes }, { ...straight, ...rule }, chordMm);
  if (!prism) throw new Error('no body');
  return prism.mesh;
};
const box = rectanglePath({ minX: 0, minY: 0, maxX: 40, maxY: 30 });
const disc = circlePath({ x: 5, y: -3 }, 20);

describe('volumes in closed form', () => {
  it.each([
    ['a box', meshOf(box), 40 * 30 * 4],
    ['a box with a round hole', meshOf(box, {}, [reversedPath(circlePath({ x: 20, y: 15 }, 5))]), (1200 - Math.PI * 25) * 4],
    // A prismatoid: h / 6 (A + 4 M + B).
    ['a box that leans inwards', meshOf(box, { draft: Math.atan(0.5) }), (4 / 6) * (1200 + 4 * 38 * 28 + 36 * 26)],
    ['a cone without its tip', meshOf(disc, { toMm: 10, draft: Math.atan(1) }), (Math.PI * 10 * (400 + 200 + 100)) / 3],
    ['a disc with bevelled edges', meshOf(disc, { top: { kind: 'bevel', sizeMm: 1 } }), Math.PI * (400 * 3 + (400 + 380 + 361) / 3)],
    ['a disc with a step', meshOf(disc, { top: { kind: 'step', sizeMm: 1 } }), Math.PI * (400 * 3 + 361)],
    // Two quarter rounds by Pappus: pi r² / 4 about R - r + 4 r / (3 pi), over the straight part and the disc within.
    ['a disc with rounded edges above and below', meshOf(disc, { toMm: 6, top: { kind: 'round', sizeMm: 2 }, bottom: { kind: 'round', sizeMm: 2 } }), Math.PI * (400 * 2 + 18 * 18 * 4) + 2 * ((Math.PI * 4) / 4) * 2 * Math.PI * (18 + 8 / (3 * Math.PI))], // biome-ignore format: one line
  ])('%s', (_, mesh, volumeMm3) => {
    expect(openEdges(mesh)).toBe(0);
    expect(Math.abs(sizeOf(mesh).volumeMm3 / volumeMm3 - 1)).toBeLessThan(4e-4);
  });
  it('a part sphere on a plate, and one sunk into it: caps of pi h² (r - h / 3)', async () => {
    const planned = (sphere: object) => solidOf([piece('plate', box)], { body: { ...plainBody, toMm: 4 }, chordMm: fine, spheres: [{ pieceId: 'plate', diameterMm: 12, faceMm: 4, depthMm: 3, ...sphere }] as SolidSettings['spheres'] }); // biome-ignore format: one line
    const cap = Math.PI * 9 * (6 - 1);
    expect(Math.abs(planned({ how: 'boss' }).volumeMm3 - 4800 - cap)).toBeLessThan(0.4);
    expect(Math.abs(planned({ how: 'dimple' }).volumeMm3 - 4800 + cap)).toBeLessThan(0.4);
  });
});

const piece = (id: string, outer: Path, holes: readonly Path[] = [], purpose: Piece['purpose'] = 'cut'): Piece => ({ id, name: id, purpose, leftOut: false, runsOff: false, outer, holes: [...holes] }); // biome-ignore format: one line
const solidOf = (pieces: readonly Piece[], change: Partial<SolidSettings> = {}) =>
  finished(solidPlan(pieces, { ...plainSolid, ...change }));
beforeAll(loadSolids);

describe('a body', () => {
  it('is closed with the right number of holes, whatever its outline, draft and edges', () => {
    const edge = fc.record({ kind: fc.constantFrom('sharp', 'round', 'bevel', 'step'), sizeMm: fc.integer({ min: 1, max: 60 }).map((n) => n / 10) }); // biome-ignore format: one line
    let [bodies, none] = [0, 0];
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e9 }), edge, edge, fc.integer({ min: -20, max: 20 }), (seed, top, bottom, draft) => {
        const random = randomFrom(seed);
        const count = 3 + Math.floor(9 * random());
        const outer = polygonPath(Array.from({ length: count }, (_, k) => ({ x: (12 + 20 * random()) * Math.cos((2 * Math.PI * k) / count), y: (12 + 20 * random()) * Math.sin((2 * Math.PI * k) / count) }))); // biome-ignore format: a star of corners
        const holes = random() < 0.5 ? [reversedPath(circlePath({ x: 0, y: 0 }, 1 + 3 * random()))] : [];
        const prism = prismOf({ outer, holes }, { fromMm: -2, toMm: 6, draft: (draft * Math.PI) / 180, top, bottom } as never, 0.02);
        if (!prism) {
          none++;
          return;
        }
        bodies++;
        expect(openEdges(prism.mesh)).toBe(0);
        expect(Math.abs(eulerCharacteristic(prism.mesh) % 2)).toBe(0);
        expect(sizeOf(prism.mesh).volumeMm3).toBeGreaterThan(0);
      }),
      { numRuns: lawRuns(300) },
    );
    expect(none).toBeLessThan(0.02 * bodies);
  });
  it('has edges that are a quarter of a circle within the chord error: every vertex on it, chords off it by no more', () => {
    const chordMm = 0.02;
    const { positions } = meshOf(disc, { toMm: 8, top: { kind: 'round', sizeMm: 3 } }, [], chordMm);
    const angles = new Set<string>();
    for (let k = 0; k < positions.length; k += 3) {
      const [x, y, z] = [(positions[k] as number) - 5, (positions[k + 1] as number) + 3, positions[k + 2] as number];
      if (z <= 5 + 1e-6) continue;
      const off = Math.hypot(Math.hypot(x, y) - 17, z - 5);
      // Vertices of the outline's own chords lie on it.
      expect(Math.abs(off - 3)).toBeLessThan(0.01);
      angles.add(z.toFixed(4));
    }
    expect(3 * (1 - Math.cos(Math.PI / 4 / angles.size))).toBeLessThan(chordMm);
  });
  it('with edges larger than there is room for has as large ones as fit, and says so', () => {
    const round: EdgeSetting = { kind: 'round', sizeMm: 9 };
    const plan = solidOf([piece('bar', rectanglePath({ minX: 0, minY: 0, maxX: 60, maxY: 8 }))], { body: { ...plainBody, toMm: 20, top: round } }); // biome-ignore format: one line
    expect(plan.notes.map(({ message }) => message)).toEqual([expect.stringMatching(/have no room for 9 mm.*made 3\.8/)]);
    expect(openEdges(plan.parts[0]?.mesh as Mesh)).toBe(0);
  });
});

describe('a solid', () => {
  const walls = { ...plainBody, fromMm: 0, toMm: 8 };
  const rule = (own: Partial<BodySetting>, of: { pieceId?: string; purpose?: Piece['purpose'] }) => ({ ...plainBody, ...own, pieceId: of.pieceId ?? null, purpose: of.purpose ?? null }); // biome-ignore format: one line
  it('joins what stands on its base, takes away what is cut, and leaves bodies apart', () => {
    const pieces = [piece('ring', disc, [reversedPath(circlePath({ x: 5, y: -3 }, 12))]), piece('slot', rectanglePath({ minX: 20, minY: -5, maxX: 30, maxY: -1 }), [], 'pocket'), piece('pin', circlePath({ x: 60, y: 0 }, 3))]; // biome-ignore format: one line
    const plan = solidOf(pieces, {
      chordMm: fine,
      body: walls,
      rules: [rule({ fromMm: 5, toMm: 8, how: 'cut' }, { purpose: 'pocket' }), rule({ toMm: 10, how: 'apart' }, { pieceId: 'pin' })],
      base: { marginMm: 2, thicknessMm: 2, cornerMm: 0, holeMm: null },
    });
    expect(plan.parts.map(({ name }) => name)).toEqual(['ring', 'pin']);
    for (const { mesh } of plan.parts) expect(openEdges(mesh)).toBe(0);
    // A plate with a ring on it has one hole less than a ring: none goes through.
    expect(eulerCharacteristic(plan.parts[0]?.mesh as Mesh)).toBe(2);
    expect(plan.min[2]).toBeCloseTo(-2, 5);
    const plate = (63 + 15 + 4) * 44 * 2;
    const ring = Math.PI * (400 - 144) * 8;
    const cut = ring + plate - sizeOf(plan.parts[0]?.mesh as Mesh).volumeMm3;
    // The slot goes through the ring's wall, 3 mm deep and 4 wide.
    expect(cut).toBeGreaterThan(3 * 4 * 4.5);
    expect(cut).toBeLessThan(3.1 * 4 * 6);
    expect(commonVolume(plan.parts[0]?.mesh as Mesh, plan.parts[1]?.mesh as Mesh)).toBeLessThan(0.2 * Math.PI * 9 + 1);
  });
  it('has a base with rounded corners and a hole to hang it by, where its margin has room', () => {
    const base = { marginMm: 8, thicknessMm: 2, cornerMm: 5, holeMm: 4 };
    const plan = solidOf([piece('plate', box)], { body: { ...plainBody, toMm: 3 }, base, chordMm: fine });
    expect(eulerCharacteristic(plan.parts[0]?.mesh as Mesh)).toBe(0);
    expect(plan.volumeMm3).toBeCloseTo(40 * 30 * 3 + (56 * 46 - (4 - Math.PI) * 25 - Math.PI * 4) * 2, 0);
    expect(solidOf([piece('plate', box)], { base: { ...base, marginMm: 3 } }).notes.map(({ message }) => message).join(' ')).toMatch(/no room for the hole/); // biome-ignore format: one line
  });
  it('makes drawn lines bands as wide as typed, and nothing of guides', () => {
    const line: Path = { start: { x: 0, y: 0 }, segments: [{ kind: 'line', to: { x: 30, y: 0 } }], closed: false };
    const lines = { widthMm: 2, fromMm: 0, toMm: 5, how: 'join' as const };
    const plan = solidOf([piece('wall', line), piece('help', box, [], 'guide')], { lines, chordMm: fine });
    expect(plan.volumeMm3).toBeCloseTo((60 + Math.PI) * 5, 0);
    expect(() => solidOf([piece('help', box, [], 'guide')])).toThrow(/nothing to make solid/);
    expect(() => solidOf([piece('wall', line)])).toThrow(/nothing to make solid/);
  });
  it.each([
    ['a top below its bottom', { body: { ...plainBody, toMm: -1 } }, /has no body/],
    ['all of it cut', { body: { ...plainBody, how: 'cut' as const } }, /Nothing is left/],
  ])('of %s is refused in a sentence', (_, change, said) => {
    try {
      expect(solidOf([piece('plate', box)], change).notes.map(({ message }) => message).join(' ')).toMatch(said); // biome-ignore format: one line
    } catch (error) {
      expect(`${(error as Error).message} “plate” has no body`).toMatch(said);
    }
  });
  it('weighs what it holds, and takes as much filament', () => {
    const plan = solidOf([piece('plate', box)], { body: { ...plainBody, toMm: 5 }, density: 2, filamentMm: 2, flowMm3PerS: 10, layerMm: 0.25 }); // biome-ignore format: one line
    expect([plan.massG, plan.filamentM, plan.seconds, plan.layers]).toEqual([expect.closeTo(12, 6), expect.closeTo(6 / Math.PI, 6), expect.closeTo(600, 6), 20]); // biome-ignore format: one line
  });
});

describe('a turned body', () => {
  const turned = (outer: Path, degrees: number) =>
    solidOf([piece('half', outer)], { chordMm: fine, turned: [{ pieceId: 'half', degrees, wallMm: null }] });
  it.each([
    // Pappus: the profile's area times the way of its middle.
    ['a ring of a circle', circlePath({ x: 40, y: 10 }, 4), 360, Math.PI * 16 * 2 * Math.PI * 4],
    ['a cylinder of a rectangle', rectanglePath({ minX: 5, minY: 0, maxX: 12, maxY: 20 }), 360, Math.PI * 49 * 20],
    [
      'a cone of a triangle',
      polygonPath([
        { x: 5, y: 0 },
        { x: 14, y: 0 },
        { x: 5, y: 30 },
      ]),
      360,
      (Math.PI * 81 * 30) / 3,
    ],
    [
      'a quarter of it',
      polygonPath([
        { x: 5, y: 0 },
        { x: 14, y: 0 },
        { x: 5, y: 30 },
      ]),
      90,
      (Math.PI * 81 * 30) / 12,
    ],
  ] as const)('%s has the volume of Pappus, closed', (_, outer, degrees, volumeMm3) => {
    const plan = turned(outer, degrees);
    expect(plan.volumeMm3 / volumeMm3).toBeCloseTo(1, 2.5);
    expect(openEdges(plan.parts[0]?.mesh as Mesh)).toBe(0);
  });
});

describe('a turned body with a wall', () => {
  const turned = (outer: Path, wallMm: number) => solidOf([piece('half', outer)], { chordMm: fine, turned: [{ pieceId: 'half', degrees: 360, wallMm }] }); // biome-ignore format: one line
  it('is open where it ends flat above: a cup', () => {
    const plan = turned(rectanglePath({ minX: 3, minY: 0, maxX: 23, maxY: 40 }), 2);
    expect(plan.volumeMm3 / (Math.PI * (400 * 40 - 324 * 38))).toBeCloseTo(1, 2.5);
    expect(eulerCharacteristic(plan.parts[0]?.mesh as Mesh)).toBe(2);
  });
  it('is closed where it does not: a hollow ball', () => {
    const half = polygonPath(Array.from({ length: 600 }, (_, k) => ({ x: 15 * Math.sin((Math.PI * k) / 599), y: -15 * Math.cos((Math.PI * k) / 599) }))); // biome-ignore format: one line
    const plan = turned(half, 1.5);
    expect(plan.volumeMm3 / ((4 / 3) * Math.PI * (15 ** 3 - 13.5 ** 3))).toBeCloseTo(1, 2);
    expect(eulerCharacteristic(plan.parts[0]?.mesh as Mesh)).toBe(4);
  });
  it('narrow at its neck stays whole there; one with no room for a hollow is left solid, and told', () => {
    const vase = polygonPath([{ x: 0, y: 0 }, { x: 20, y: 0 }, { x: 20, y: 30 }, { x: 8, y: 40 }, { x: 8, y: 50 }, { x: 14, y: 60 }, { x: 0, y: 60 }]); // biome-ignore format: one line
    const plan = turned(vase, 2);
    const frustum = (r: number, s: number, h: number): number => (Math.PI * h * (r * r + r * s + s * s)) / 3;
    const whole = frustum(20, 20, 30) + frustum(20, 8, 10) + frustum(8, 8, 10) + frustum(8, 14, 10);
    expect(plan.volumeMm3).toBeLessThan(0.35 * whole);
    // A thin shell: about its area by its wall.
    const { areaMm2 } = sizeOf(plan.parts[0]?.mesh as Mesh);
    expect(plan.volumeMm3 / areaMm2).toBeCloseTo(1, 0.7);
    expect(turned(vase, 30).notes.map(({ message }) => message)).toEqual([expect.stringMatching(/no room for a hollow with a wall of 30/)]);
  });
});

describe('a relief', () => {
  const picture = (grey: (x: number, y: number) => number): GreyOnSheet => ({
    pictureId: 'p',
    widthPx: 200,
    heightPx: 100,
    grey: Uint8Array.from({ length: 20_000 }, (_, k) => grey((k % 200) + 0.5, Math.floor(k / 200) + 0.5)),
    // Four pixels a millimetre; y goes up on the sheet.
    toSheet: { a: 0.25, b: 0, c: 0, d: -0.25, e: 0, f: 25 },
  });
  const relief = { pieceId: 'plate', pictureId: 'p', blackMm: 1, whiteMm: 4, smoothMm: 0, stepMm: 0.25 };
  const reliefOf = (outer: Path, grey: GreyOnSheet, change: Partial<SolidSettings> = {}) => finished(solidPlan([piece('plate', outer)], { ...plainSolid, reliefs: [relief], ...change }, [grey])); // biome-ignore format: one line
  const plate = rectanglePath({ minX: 5, minY: 5, maxX: 45, maxY: 20 });
  it('is as high as the picture is light: a slope from black to white has the mean height', () => {
    const plan = reliefOf(
      plate,
      picture((x) => (255 * x) / 200),
    );
    expect(plan.volumeMm3 / (40 * 15 * 2.5)).toBeCloseTo(1, 2);
    expect(plan.max[2]).toBeCloseTo(1 + 3 * (45 / 50), 1);
    expect(eulerCharacteristic(plan.parts[0]?.mesh as Mesh)).toBe(2);
    // Light falls to the right, and the picture is not upside down: up on the sheet is up in it.
    const up = reliefOf(
      plate,
      picture((_, y) => 255 - (255 * y) / 100),
    );
    expect(up.middle[1]).toBeGreaterThan(12.6);
  });
  it('keeps to a round outline, and cut out of a plate leaves a sunk one', () => {
    const disc = reliefOf(
      circlePath({ x: 25, y: 12.5 }, 10),
      picture(() => 127.5),
    );
    expect(disc.volumeMm3 / (Math.PI * 100 * (1 + (3 * 127) / 255))).toBeCloseTo(1, 2);
    const pieces = [piece('board', rectanglePath({ minX: 0, minY: 0, maxX: 50, maxY: 25 })), piece('plate', plate)];
    const body = { ...plainBody, toMm: 5 };
    const sunk = finished(solidPlan(pieces, { ...plainSolid, body, rules: [{ ...body, how: 'cut', pieceId: 'plate', purpose: null }], reliefs: [relief] }, [picture((x) => (255 * x) / 200)])); // biome-ignore format: one line
    expect(sunk.volumeMm3 / (50 * 25 * 5 - 40 * 15 * 2.5)).toBeCloseTo(1, 2.5);
  });
  it('is smoothed by a Gaussian of the width that is typed: a step becomes its integral', () => {
    const surface = reliefSurface(
      { minX: 0, minY: 0, maxX: 50, maxY: 25 },
      picture((x) => (x < 100 ? 0 : 255)),
      { ...relief, smoothMm: 2 },
    );
    const at = (x: number): number => surface.heights[Math.round(x / 0.25) + 50 * surface.columns] as number;
    // Values of the normal distribution's integral at -1, 0 and 1 standard deviations, from memory.
    for (const [x, share] of [[23, 0.1587], [25, 0.5], [27, 0.8413]] as const) expect((at(x) - 1) / 3).toBeCloseTo(share, 1.7); // biome-ignore format: one line
  });
  it('whose picture is gone, or that lies below its body, is told; too fine a one is made coarser', () => {
    const said = (plan: ReturnType<typeof reliefOf>): string => plan.notes.map(({ message }) => message).join(' ');
    expect(said(reliefOf(plate, { ...picture(() => 0), pictureId: 'other' }))).toMatch(/not at hand: its body ends flat/);
    const other = piece('other', circlePath({ x: 80, y: 0 }, 5));
    const low = finished(solidPlan([piece('plate', plate), other], { ...plainSolid, body: { ...plainBody, fromMm: 2, toMm: 6 }, reliefs: [relief] }, [picture(() => 0)])); // biome-ignore format: one line
    expect(said(low)).toMatch(/lies below the bottom/);
    expect(low.parts.length).toBe(1);
    expect(
      said(
        reliefOf(
          plate,
          picture(() => 0),
          { reliefs: [{ ...relief, stepMm: 0.02 }] },
        ),
      ),
    ).toMatch(/no room for places 0\.020 mm apart: they are 0\.080/);
  });
});

describe('files of a solid', () => {
  const star: NamedMesh = { name: 'Lantern <star>', mesh: meshOf(ellipsePath({ x: 100, y: 50 }, 30, 12, 0.4), { top: { kind: 'round', sizeMm: 1 } }, [], 0.02) }; // biome-ignore format: one line
  const pin: NamedMesh = { name: 'Pin', mesh: meshOf(circlePath({ x: 0, y: 0 }, 3), {}, [], 0.02) };
  const whole = [star, pin].reduce((sum, { mesh }) => sum + sizeOf(mesh).volumeMm3, 0);
  it.each([
    ['STL', readStl(writeStl([star, pin]))],
    ['OBJ', readObj(writeObj([star, pin]))],
    ['PLY', readPly(writePly([star, pin]))],
  ])('%s holds the same solid, closed', (_, mesh) => {
    expect(openEdges(mesh)).toBe(0);
    expect(sizeOf(mesh).volumeMm3 / whole).toBeCloseTo(1, 5);
    expect(sizeOf(mesh).max[0]).toBeCloseTo(sizeOf(star.mesh).max[0], 4);
  });
  it('3MF holds each body by its name, in millimetres', () => {
    const bytes = write3mf([star, pin], 'Festival & star', ['#1E7B6B']);
    const read = read3mf(bytes);
    expect(read.map(({ name }) => name)).toEqual(['Lantern <star>', 'Pin']);
    for (const [k, { mesh }] of read.entries()) {
      expect(openEdges(mesh)).toBe(0);
      expect(sizeOf(mesh).volumeMm3).toBeCloseTo(sizeOf(([star, pin][k] as NamedMesh).mesh).volumeMm3, 2);
    }
    expect(write3mf([star, pin], 'Festival & star', ['#1E7B6B'])).toEqual(bytes);
  });
  it('3MF is right to the letter of its specification by the reader of those who publish it (lib3mf, strict), with nothing to warn of', async () => {
    const library = await lib3mf();
    library.FS.writeFile('/part.3mf', write3mf([star, pin], 'Festival & star', ['#1E7B6B', '#A87B1D']));
    const model = new library.CWrapper().CreateModel();
    const reader = model.QueryReader('3mf');
    reader.SetStrictModeActive(true);
    reader.ReadFromFile('/part.3mf');
    expect(reader.GetWarningCount()).toBe(0);
    expect(model.GetUnit().value).toBe(library.eModelUnit.MilliMeter.value);
    const meshes = model.GetMeshObjects();
    for (const { name, mesh } of [star, pin]) {
      expect(meshes.MoveNext()).toBe(true);
      const object = meshes.GetCurrentMeshObject();
      expect([object.GetName(), object.GetVertexCount(), object.GetTriangleCount(), object.IsManifoldAndOriented(), object.IsValid()]).toEqual([name, mesh.positions.length / 3, mesh.triangles.length / 3, true, true]); // biome-ignore format: one line
    }
    expect(meshes.MoveNext()).toBe(false);
  });
  it('that are damaged are refused in a sentence', () => {
    const bytes = writeStl([pin]);
    expect(() => readStl(bytes.subarray(0, 300))).toThrow(/damaged/);
    const many = bytes.slice();
    new DataView(many.buffer).setUint32(80, 4e9, true);
    expect(() => readStl(many)).toThrow(/more than/);
    expect(() => readObj(new TextEncoder().encode('v 0 0 0\nf 1 2 3\n'))).toThrow(/damaged/);
    expect(() => readPly(writePly([pin]).subarray(0, 400))).toThrow(/damaged/);
    expect(() => read3mf(writeStl([pin]))).toThrow(/damaged/);
  });
  it('are made by the process, each read back to a ten-thousandth', async () => {
    const kind = processKinds.solid as (typeof processKinds)[string];
    const work = { title: 'Plate', pieces: [piece('plate', box)], settings: plainSolid, machine: plainMachine, stock: plainStock };
    const plan = finished(kind.plan(work));
    for (const file of Object.values(kind.files)) {
      const { largestMm, widthMm, report } = await file.make(work, plan, { dpi: 96, underlay: null });
      expect(largestMm).toBeLessThan(1e-4);
      expect(widthMm).toBeCloseTo(40, 5);
      expect(report).toMatchObject({ volumeMm3: expect.closeTo(3600, 1) });
    }
  });
});
