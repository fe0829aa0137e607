/** A solid as it is printed: its sections, what would go wrong, bodies that go together; and STL files that an outside program finds nothing to mend in. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readGlb, readStl, writeStl } from '@nuvet/core/formats';
import { type Piece, plainMachine, plainStock } from '@nuvet/core/job';
import { circlePath, type Path, polygonPath, rectanglePath, reversedPath } from '@nuvet/core/plane';
import { type ProcessFileMade, processKinds } from '@nuvet/core/processes';
import { type BodySetting, type Contour, commonVolume, contourArea, loadSolids, type Mesh, openEdges, type PrintChecks, plainBody, plainSolid, printChecks, rimOff, Slicer, type SolidPlan, type SolidSettings, sectionArea, sizeOf, solidPlan, virtualPrint } from '@nuvet/core/solid'; // biome-ignore format: one line
import { finished } from '@nuvet/core/steps';
import { randomFrom } from '@nuvet/truth';
import { decode } from 'fast-png';
import { validateBytes } from 'gltf-validator';
import { Vector3 } from 'three';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';

const piece = (id: string, outer: Path, holes: readonly Path[] = [], purpose: Piece['purpose'] = 'cut'): Piece => ({ id, name: id, purpose, leftOut: false, runsOff: false, outer, holes: [...holes] }); // biome-ignore format: one line
const box = (widthMm: number, heightMm: number, x = 0, y = 0): Path => rectanglePath({ minX: x, minY: y, maxX: x + widthMm, maxY: y + heightMm }); // biome-ignore format: one line
const planned = (pieces: readonly Piece[], change: Partial<SolidSettings> = {}): SolidPlan =>
  finished(solidPlan(pieces, { ...plainSolid, ...change }));
const checked = (pieces: readonly Piece[], change: Partial<SolidSettings> = {}): PrintChecks => {
  const settings = { ...plainSolid, ...change };
  return finished(printChecks(planned(pieces, settings), settings));
};
const rule = (pieceId: string, own: Partial<BodySetting>) => ({ ...plainBody, ...own, pieceId, purpose: null });
beforeAll(loadSolids);

describe('sections', () => {
  it('of a cone without its tip are circles of the right size, at every height; of a ring, its two', () => {
    const cone = planned([piece('cone', circlePath({ x: 3, y: 4 }, 20))], { body: { ...plainBody, toMm: 10, draftDegrees: 45 }, chordMm: 0.002 }); // biome-ignore format: one line
    const slicer = new Slicer(cone.parts[0]?.mesh as Mesh);
    for (const z of [0.01, 2.5, 5, 9.99]) expect(sectionArea(slicer.at(z)) / (Math.PI * (20 - z) ** 2)).toBeCloseTo(1, 3);
    const ring = planned([piece('ring', circlePath({ x: 0, y: 0 }, 9), [reversedPath(circlePath({ x: 0, y: 0 }, 5))])]);
    const contours = new Slicer(ring.parts[0]?.mesh as Mesh).at(1);
    expect(contours.map((contour) => Math.sign(contourArea(contour))).sort()).toEqual([-1, 1]);
    expect(sectionArea(contours)).toBeCloseTo(Math.PI * (81 - 25), 0);
  });
  it('add up to the volume, and are closed at heights where whole faces lie', () => {
    const plan = planned([piece('plate', box(30, 20)), piece('post', box(6, 6, 4, 4))], { body: { ...plainBody, toMm: 4 }, rules: [rule('post', { fromMm: 4, toMm: 9 })] }); // biome-ignore format: one line
    const slicers = plan.parts.map(({ mesh }) => new Slicer(mesh));
    const step = 0.05;
    let volume = 0;
    for (let z = step / 2; z < 9; z += step) volume += step * slicers.reduce((sum, slicer) => sum + sectionArea(slicer.at(z)), 0);
    expect(volume).toBeCloseTo(plan.volumeMm3, 1);
    // A corner at the height counts as above it: at the upper face of the plate the plate is still cut, just below it.
    expect(sectionArea(slicers.flatMap((slicer): Contour[] => slicer.at(4)))).toBeCloseTo(600, 3);
  });
});

describe('what would go wrong in printing', () => {
  it('nothing of a plain block, which tips by its middle’s height over its half width', () => {
    const found = checked([piece('block', box(20, 30))], { body: { ...plainBody, toMm: 20 } });
    expect(found).toMatchObject({ wall: null, gap: null, tight: null, overhangMm2: 0, islands: [], isTooLarge: false, fits: [] });
    expect(found.footprintMm2).toBeCloseTo(600, 6);
    expect(found.tipsAtDegrees).toBeCloseTo(45, 6);
  });
  it('walls and gaps thinner than the nozzle, with how wide they are and where', () => {
    const comb = polygonPath([{ x: 0, y: 0 }, { x: 30, y: 0 }, { x: 30, y: 20 }, { x: 20, y: 20 }, { x: 20, y: 5 }, { x: 19.7, y: 5 }, { x: 19.7, y: 20 }, { x: 10.25, y: 20 }, { x: 10.25, y: 5 }, { x: 10, y: 5 }, { x: 10, y: 20 }, { x: 0, y: 20 }]); // biome-ignore format: one line
    const found = checked([piece('comb', comb), piece('rib', box(0.3, 20, 40, 0))]);
    expect(found.gap?.widthMm).toBeCloseTo(0.25, 3);
    expect(found.wall?.widthMm).toBeCloseTo(0.3, 3);
    expect(found.wall?.at[0]).toBeCloseTo(40.15, 2);
  });
  it('faces that hang over by more than the angle, and islands in mid-air', () => {
    // A mushroom: its cap's lower side is a ring.
    const pieces = [piece('cap', circlePath({ x: 0, y: 0 }, 12)), piece('stem', circlePath({ x: 0, y: 0 }, 5))];
    const found = checked(pieces, { rules: [rule('cap', { fromMm: 10, toMm: 13 }), rule('stem', { toMm: 11 })] });
    expect(found.overhangMm2).toBeCloseTo(Math.PI * (144 - 25), -1);
    expect(found.islands).toEqual([]);
    expect(found.overhanging[0]?.length).toBeGreaterThan(0);
    // A side that leans out by 30 degrees is carried by the layers below it at 45, and is not at 20.
    const leaning = (overhangDegrees: number) => checked([piece('cup', circlePath({ x: 0, y: 0 }, 10))], { body: { ...plainBody, toMm: 10, draftDegrees: -30 }, overhangDegrees }).overhangMm2; // biome-ignore format: one line
    expect(leaning(45)).toBe(0);
    expect(leaning(20)).toBeGreaterThan(600);
    const floating = checked([piece('foot', box(10, 10)), piece('drop', box(4, 4, 20, 0))], { rules: [rule('drop', { fromMm: 5, toMm: 8 })], layerMm: 0.5 }); // biome-ignore format: one line
    expect(floating.islands.length).toBe(1);
    expect(floating.islands[0]?.[2]).toBeCloseTo(5.25, 3);
  });
  it('a body that falls over by itself, and one that is larger than the bed', () => {
    const arm = polygonPath([{ x: 0, y: 0 }, { x: 4, y: 0 }, { x: 4, y: 4 }, { x: 0, y: 4 }]); // biome-ignore format: one line
    const found = checked([piece('leg', arm), piece('arm', box(60, 4))], { rules: [rule('leg', { toMm: 30 }), rule('arm', { fromMm: 29, toMm: 34 })], bed: { widthMm: 50, depthMm: 220, heightMm: 200 } }); // biome-ignore format: one line
    expect(found.tipsAtDegrees).toBeLessThan(0);
    // 60 mm long: it goes on to the bed across.
    expect(found.isTooLarge).toBe(false);
    expect(checked([piece('plate', box(60, 60))], { bed: { widthMm: 50, depthMm: 220, heightMm: 200 } }).isTooLarge).toBe(true);
  });
  it('passages of a maze that a ball does not get through: the narrowest is told', () => {
    const wall = (id: string, ...corners: readonly [number, number][]): Piece => piece(id, { start: { x: corners[0]?.[0] ?? 0, y: corners[0]?.[1] ?? 0 }, segments: corners.slice(1).map(([x, y]) => ({ kind: 'line', to: { x, y } })), closed: false }); // biome-ignore format: one line
    const maze = [wall('left', [0, 0], [0, 40]), wall('middle', [11, 0], [11, 28], [20, 28]), wall('right', [21.5, 0], [21.5, 40])];
    const lines = { widthMm: 1.2, fromMm: 0, toMm: 10, how: 'join' as const };
    const base = { marginMm: 3, thicknessMm: 2, cornerMm: 2, holeMm: null };
    const found = checked(maze, { lines, base, ballMm: 9.5 });
    // From the end of the middle wall, 0.6 mm round, to the face of the right one.
    expect(found.tight?.widthMm).toBeCloseTo(21.5 - 0.6 - 20 - 0.6, 1);
    const opened = [maze[0] as Piece, wall('middle', [11, 0], [11, 28]), wall('right', [22.5, 0], [22.5, 40])];
    expect(checked(opened, { lines, base, ballMm: 9.5 }).tight).toBe(null);
    // Thicker walls leave less.
    expect(checked(opened, { lines: { ...lines, widthMm: 2.2 }, base, ballMm: 9.5 }).tight?.widthMm).toBeCloseTo(11 - 2.2, 2);
  });
});

describe('bodies that are pushed together', () => {
  const star = polygonPath(Array.from({ length: 12 }, (_, k) => ({ x: (k % 2 ? 12 : 40) * Math.sin((Math.PI * k) / 6), y: (k % 2 ? 12 : 40) * Math.cos((Math.PI * k) / 6) }))); // biome-ignore format: one line
  const pair = { pieceId: 'star', otherId: null, degrees: 90, playMm: 0.5, asideMm: [0, 0] as [number, number] };
  it('have half a slot each, nothing in common as they stand, and the play that was typed', () => {
    const body = { ...plainBody, toMm: 4 };
    const plan = planned([piece('star', star)], { body, pairs: [pair] });
    expect(plan.notes).toEqual([]);
    expect(plan.parts.length).toBe(2);
    for (const { mesh } of plan.parts) {
      expect(openEdges(mesh)).toBe(0);
      // The slot is 4.5 mm wide, and 40 mm deep in a star whose arm narrows to a point.
      expect(sizeOf(mesh).volumeMm3).toBeLessThan(sizeOf(planned([piece('star', star)], { body }).parts[0]?.mesh as Mesh).volumeMm3 - 4 * 4.5 * 30); // biome-ignore format: one line
    }
    const { fits } = finished(printChecks(plan, { ...plainSolid, body, pairs: [pair] }));
    expect(fits[0]?.commonMm3).toBeCloseTo(0, 6);
    expect(fits[0]?.playMm).toBeCloseTo(0.5, 1);
    // The second stands upright in the first: as high as it is long.
    const { min, max } = sizeOf(plan.pairs[0]?.assembled as Mesh);
    expect(max[2] - min[2]).toBeGreaterThan(60);
  });
  it('may be of two outlines, and of unlike thickness: each slot is as wide as the other body is thick', () => {
    const pieces = [piece('a', box(60, 40)), piece('b', box(60, 30, 0, 60))];
    const change = { rules: [rule('a', { toMm: 3 }), rule('b', { toMm: 6 })], pairs: [{ pieceId: 'a', otherId: 'b', degrees: 0, playMm: 0.2, asideMm: [0, 0] as [number, number] }] }; // biome-ignore format: one line
    const plan = planned(pieces, change);
    expect(plan.parts.map(({ mesh }) => sizeOf(mesh).volumeMm3)).toEqual([expect.closeTo(3 * (60 * 40 - 6.2 * 30.05), 2), expect.closeTo(6 * (60 * 30 - 3.2 * 30.05), 2)]); // biome-ignore format: one line
    expect(finished(printChecks(plan, { ...plainSolid, ...change })).fits[0]?.commonMm3).toBeCloseTo(0, 6);
  });
  it('may be more than two: a grid of dividers, two each way, stands together and nothing is in anything else', () => {
    const plank = (id: string, wide: number, y: number) => piece(id, box(wide, 30, 0, y));
    const crossing = (pieceId: string, otherId: string, one: number, other: number) => ({ pieceId, otherId, degrees: 90, playMm: 0.4, asideMm: [one, other] as [number, number] }); // biome-ignore format: one line
    const change = { body: { ...plainBody, toMm: 3 }, pairs: [crossing('a', 'c', -30, -15), crossing('a', 'd', 30, -15), crossing('b', 'c', -30, 15), crossing('b', 'd', 30, 15)] }; // biome-ignore format: one line
    const plan = planned([plank('a', 120, 0), plank('b', 120, 40), plank('c', 90, 80), plank('d', 90, 120)], change);
    expect(plan.notes).toEqual([]);
    // Two slots in each, 3.4 mm wide and half its depth deep.
    for (const [k, { mesh }] of plan.parts.entries()) expect(sizeOf(mesh).volumeMm3).toBeCloseTo(3 * ((k === 0 || k === 3 ? 120 : 90) * 30 - 2 * 3.4 * 15.05), 2); // biome-ignore format: one line
    const { fits } = finished(printChecks(plan, { ...plainSolid, ...change }));
    expect(fits.map(({ commonMm3 }) => commonMm3)).toEqual([0, 1, 2, 3].map(() => expect.closeTo(0, 6)));
    expect(fits.map(({ playMm }) => playMm)).toEqual([0, 1, 2, 3].map(() => expect.closeTo(0.4, 1)));
    expect(plan.assembled.length).toBe(4);
    for (const [k, { mesh }] of plan.assembled.entries()) for (const other of plan.assembled.slice(k + 1)) expect(commonVolume(mesh, other.mesh)).toBeCloseTo(0, 6); // biome-ignore format: one line
    // Flush: together they are as deep as one plank, and the two that lie along one another 30 mm apart.
    const sizes = plan.assembled.map(({ mesh }) => sizeOf(mesh));
    expect(Math.max(...sizes.map(({ max }) => max[1])) - Math.min(...sizes.map(({ min }) => min[1]))).toBeCloseTo(30, 3);
    const partOf = (part: number) => sizes[plan.assembled.findIndex((one) => one.part === part)];
    expect(Math.abs((partOf(0)?.min[2] ?? 0) - (partOf(3)?.min[2] ?? 0))).toBeCloseTo(30, 3);
  });
  it('may be three of one outline, one beside the other as they are made', () => {
    const plan = planned([piece('bar', box(60, 30))], { pairs: [{ ...pair, pieceId: 'bar', playMm: 0, asideMm: [-10, 0] }, { ...pair, pieceId: 'bar', playMm: 0, asideMm: [10, 0] }] }); // biome-ignore format: one line
    expect(plan.notes).toEqual([]);
    expect(plan.parts.map(({ mesh }) => sizeOf(mesh).volumeMm3)).toEqual([2, 1, 1].map((slots) => expect.closeTo(3 * (60 * 30 - slots * 3 * 15.05), 2))); // biome-ignore format: one line
    expect(plan.parts.map(({ mesh }) => sizeOf(mesh).min[0])).toEqual([0, 70, 140].map((x) => expect.closeTo(x, 3)));
  });
  it('whose slot is wider than its arm are refused in a sentence, and the rest goes on', () => {
    for (const degrees of [0, 90]) {
      const plan = planned([piece('bar', box(60, 4)), piece('disc', circlePath({ x: 0, y: 40 }, 9))], { body: { ...plainBody, toMm: 5 }, pairs: [{ ...pair, pieceId: 'bar', degrees }] }); // biome-ignore format: one line
      // Along the bar the slot is wider than it; across it the whole of one side would be gone at the other.
      expect(plan.notes.map(({ message }) => message)).toEqual(
        degrees === 0 ? [expect.stringMatching(/5\.50 mm wide cuts .bar. in two/)] : [],
      );
      expect(plan.parts.length).toBeGreaterThan(0);
    }
    expect(planned([piece('bar', box(60, 4))], { pairs: [{ ...pair, pieceId: 'gone' }] }).notes.map(({ message }) => message)).toEqual([expect.stringMatching(/outline of a push-together pair is gone/)]); // biome-ignore format: one line
  });
});

describe('an outside program', () => {
  const folder = mkdtempSync(join(tmpdir(), 'nuvet-solids-'));
  afterAll(() => rmSync(folder, { recursive: true }));
  it('finds nothing to mend in the STL files of 300 random bodies (admesh, Debian), and the same volume', () => {
    const random = randomFrom(77);
    const kinds = ['sharp', 'round', 'bevel', 'step'] as const;
    const edge = () => ({ kind: kinds[Math.floor(4 * random())] as (typeof kinds)[number], sizeMm: 0.3 + 3 * random() });
    for (let file = 0; file < 10; file++) {
      const meshes: { name: string; mesh: Mesh }[] = [];
      let volumeMm3 = 0;
      for (let k = 0; k < 30; k++) {
        const count = 3 + Math.floor(8 * random());
        const outer = polygonPath(Array.from({ length: count }, (_, n) => ({ x: (14 + 18 * random()) * Math.cos((2 * Math.PI * n) / count), y: (14 + 18 * random()) * Math.sin((2 * Math.PI * n) / count) }))); // biome-ignore format: one line
        const settings = { body: { ...plainBody, toMm: 3 + 6 * random(), draftDegrees: 12 * (random() - 0.5), top: edge(), bottom: edge() }, base: random() < 0.5 ? { marginMm: 2, thicknessMm: 2, cornerMm: 2, holeMm: null } : null, chordMm: 0.1 }; // biome-ignore format: one line
        const plan = planned([piece('body', outer, [reversedPath(circlePath({ x: 0, y: 0 }, 1.5 + random()))]), piece('pin', circlePath({ x: 9, y: 0 }, 2), [], 'score')], { ...settings, rules: [rule('pin', { toMm: 14 })] }); // biome-ignore format: one line
        volumeMm3 += plan.volumeMm3;
        for (const { name, mesh } of plan.parts) meshes.push({ name, mesh: { ...mesh, positions: mesh.positions.map((value, n) => value + (n % 3 === 0 ? 100 * k : 0)) } }); // biome-ignore format: one line
      }
      const path = join(folder, `${file}.stl`);
      writeFileSync(path, writeStl(meshes));
      const told = execFileSync('/usr/bin/admesh', ['--exact', path], { encoding: 'utf8' });
      const figure = (name: string): number => Number(new RegExp(`${name}\\s*:\\s*(-?[\\d.]+)`).exec(told)?.[1]);
      for (const name of ['Degenerate facets', 'Edges fixed', 'Facets removed', 'Facets added', 'Facets reversed', 'Backwards edges', 'Normals fixed']) expect([file, name, figure(name)]).toEqual([file, name, 0]); // biome-ignore format: one line
      expect(figure('Volume') / volumeMm3).toBeCloseTo(1, 3);
    }
  });
});

describe('files for showing', () => {
  const pieces = [
    piece('ring', circlePath({ x: 0, y: 0 }, 12), [reversedPath(circlePath({ x: 0, y: 0 }, 6))]),
    piece('post', box(4, 4, 20, 0)),
  ];
  const plan = () => planned(pieces, { rules: [rule('post', { toMm: 9, how: 'apart' })] });
  const make = async (name: string, dpi = 600) =>
    (await processKinds.solid?.files[name]?.make({ title: 'Ring', pieces, settings: plainSolid, machine: plainMachine, stock: plainStock }, plan(), { dpi, underlay: null })) as ProcessFileMade; // biome-ignore format: one line
  it('GLB is without a fault to the validator of its own standard (gltf-validator, npm), and is read back', async () => {
    const { bytes, largestMm } = await make('glb');
    const report = await validateBytes(bytes);
    expect(report.issues.messages.filter(({ severity }) => severity < 2)).toEqual([]);
    expect(report.info.totalTriangleCount).toBe(plan().parts.reduce((sum, { mesh }) => sum + mesh.triangles.length / 3, 0));
    expect(largestMm).toBeLessThan(1e-4);
    expect(() => readGlb(bytes.subarray(0, bytes.length - 5))).toThrow(/damaged/);
    expect(readGlb(bytes).map(({ name }) => name)).toEqual(['ring', 'post']);
  });
  it('STL and GLB are read by a general-purpose library (three, npm) as the same solid', async () => {
    const geometry = new STLLoader().parse((await make('stl')).bytes.slice().buffer);
    const corners = geometry.getAttribute('position').array;
    expect(corners.length / 9).toBe(plan().parts.reduce((sum, { mesh }) => sum + mesh.triangles.length / 3, 0));
    let volume = 0;
    for (let k = 0; k < corners.length; k += 9) {
      const [a, b, c] = [0, 3, 6].map((n) => new Vector3(corners[k + n], corners[k + n + 1], corners[k + n + 2])) as [Vector3, Vector3, Vector3]; // biome-ignore format: one line
      volume += a.dot(b.cross(c)) / 6;
    }
    expect(volume / plan().volumeMm3).toBeCloseTo(1, 5);
  });
  it('the height map has the heights of all bodies, at the resolution that was asked for', async () => {
    const { bytes, widthMm, heightMm } = await make('heights', 254);
    const { width, height, data, depth } = decode(bytes);
    expect([width, height, depth]).toEqual([360, 240, 16]);
    expect([widthMm, heightMm]).toEqual([expect.closeTo(36, 6), expect.closeTo(24, 6)]);
    const at = (x: number, y: number): number => ((data[Math.round((12 - y) * 10 - 0.5) * width + Math.round((x + 12) * 10 - 0.5)] as number) / 65_535) * 9; // biome-ignore format: one line
    expect([at(0, 0), at(9, 0), at(22, 2), at(17, 8)]).toEqual([0, expect.closeTo(3, 3), 9, 0]);
  });
});

describe('a printer that stands in for a real one', () => {
  it('lays down of an STL’s own triangles just what was drawn, layer by layer', () => {
    const outer = polygonPath([{ x: 0, y: 0 }, { x: 40, y: 4 }, { x: 36, y: 30 }, { x: 18, y: 22 }, { x: 4, y: 28 }]); // biome-ignore format: one line
    const hole = reversedPath(circlePath({ x: 20, y: 12 }, 5));
    const plan = planned([piece('tile', outer, [hole]), piece('rib', box(10, 3, 4, 5))], { body: { ...plainBody, toMm: 3 }, rules: [rule('rib', { fromMm: 3, toMm: 5 })] }); // biome-ignore format: one line
    const printed = finished(virtualPrint(readStl(writeStl(plan.parts)), 0.5, 0.1));
    expect(printed.layers.map(({ z }) => z)).toEqual(Array.from({ length: 10 }, (_, k) => expect.closeTo(0.25 + k / 2, 6)));
    for (const layer of printed.layers) {
      const outlines = layer.z < 3 ? [outer, hole] : [box(10, 3, 4, 5)];
      expect(rimOff(layer, outlines)).toBeLessThan(0.1 * Math.SQRT1_2 + 0.03);
    }
    expect(printed.volumeMm3 / plan.volumeMm3).toBeCloseTo(1, 2);
    // One that is printed askew is seen.
    expect(rimOff(printed.layers[0] as (typeof printed.layers)[0], [box(40, 28)])).toBeGreaterThan(2);
  });
});
