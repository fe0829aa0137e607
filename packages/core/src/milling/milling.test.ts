/** Operations against closed forms: volumes, widths, helices, tabs, corners that a round tool cannot reach. */
import { describe, expect, it } from 'vitest';
import { type Machine, type Piece, type Purpose, plainMachine, plainStock } from '../job/index.ts';
import { circlePath, type Path, pathArea, polygonPath, reversedPath } from '../plane/index.ts';
import { finished } from '../steps.ts';
import { boundedEngagement } from './engagement.ts';
import { HeightField, sweepMoves } from './height-field.ts';
import { type InlayCut, inlayFit } from './inlay-fit.ts';
import { type MillPlan, millPlan, programsOf } from './mill-plan.ts';
import { chipLoadOf, type MillTool, millToolSchema, profileOf, reachOf } from './mill-tool.ts';
import { type Move, moveLength, type Place, secondsOf } from './moves.ts';
import { type Operation, operationSchema } from './operations.ts';
import { plainMilling } from './settings.ts';
import { provedPlan } from './simulation.ts';
import { readToolsCsv, toolSaid } from './tools-csv.ts';
import { Trial } from './trial.ts';
import { reachFrom } from './trochoid.ts';

const square = (x: number, y: number, w: number, h: number): Path => polygonPath([{ x, y }, { x: x + w, y }, { x: x + w, y: y + h }, { x, y: y + h }]); // biome-ignore format: corners
const tool = (more: Partial<MillTool>): MillTool =>
  millToolSchema.parse({ id: 'em', name: 'End mill', kind: 'end mill', diameterMm: 3, speedRpm: 18_000, feedMmPerMin: 900, plungeMmPerMin: 300, stepdownMm: 1.5, stepover: 0.4, ...more }); // biome-ignore format: fields
const endMill = tool({});
const vBit = tool({ id: 'v', name: 'V-bit', kind: 'V-bit', angle: 60, diameterMm: 6, stepdownMm: 3 });
const piece = (id: string, purpose: Purpose, outer: Path, holes: Path[] = []): Piece => ({ id, name: id, purpose, outer, holes: holes.map((hole) => reversedPath(hole)), leftOut: false }) as Piece; // biome-ignore format: fields
const stock = { ...plainStock, thicknessMm: 6, widthMm: 100, heightMm: 80 };

const planOf = (
  pieces: Piece[],
  tools: MillTool[],
  operations: object[] | null = null,
  more: object = {},
  machine: Machine = plainMachine,
) =>
  finished(
    millPlan(
      pieces,
      { ...plainMilling, tools, operations: operations?.map((o) => operationSchema.parse(o)) ?? null, ...more },
      machine,
      stock,
    ),
  );
const profile = (more: object = {}): object => ({ kind: 'profile', id: 'p', tool: 'em', ...more });
const pocket = (more: object = {}): object => ({ kind: 'pocket', id: 'k', tool: 'em', depthMm: 3, ...more });

/** What runs take off stock, on cells that are fine enough to count by. */
function milledBy(plan: ReturnType<typeof planOf>, cellMm = 0.05) {
  const field = new HeightField(plan.stock, 0, cellMm);
  for (const { start, moves, tool: own } of plan.runs) finished(sweepMoves(field, start, moves, own));
  return field;
}

describe('a tool', () => {
  it.each(['end mill', 'ball', 'V-bit', 'tapered', 'drill'] as const)(
    '%s: how far it reaches is its profile the other way round',
    (kind) => {
      const one = tool({
        kind,
        diameterMm: 6,
        tipMm: kind === 'tapered' ? 1 : 0.2,
        angle: kind === 'end mill' || kind === 'ball' ? null : 60,
      });
      const [profileAt, reach] = [profileOf(one), reachOf(one)];
      for (const r of [0.3, 0.7, 1.4, 2.2, 2.9]) if (kind !== 'end mill') expect(reach(profileAt(r))).toBeCloseTo(r, 9);
      expect(profileAt(3.001)).toBe(Infinity);
    },
  );
  it('a tapered ball’s flank leaves its ball without a corner', () => {
    const at = profileOf(tool({ kind: 'tapered', diameterMm: 6, tipMm: 1, angle: 20 }));
    const touch = 0.5 * Math.cos(Math.PI / 18);
    const slope = (r: number): number => (at(r + 1e-6) - at(r - 1e-6)) / 2e-6;
    expect(at(touch)).toBeCloseTo(0.5 * (1 - Math.sin(Math.PI / 18)), 9);
    expect(slope(touch + 1e-5)).toBeCloseTo(1 / Math.tan(Math.PI / 18), 3);
    expect(slope(touch - 1e-4)).toBeGreaterThan(5);
  });
  it('takes a chip of feed over turns and flutes: 1000 / (16000 x 2) = 0.03125 mm', () => {
    expect(chipLoadOf(tool({ feedMmPerMin: 1000, speedRpm: 16_000, flutes: 2 }))).toBeCloseTo(0.031_25, 9);
  });
});

describe('stock that is milled', () => {
  it('a groove of a V-bit is 2 d tan(a / 2) wide at depth d', () => {
    const line: Path = { start: { x: 20, y: 40 }, segments: [{ kind: 'line', to: { x: 80, y: 40 } }], closed: false };
    const plan = planOf([piece('line', 'engrave', line)], [vBit], [{ kind: 'follow', id: 'f', tool: 'v', depthMm: 2 }]);
    const field = milledBy(plan, 0.02);
    const row = Array.from({ length: 400 }, (_, k) => field.heights[field.cellAt(50, 36 + 0.02 * k + 0.01)] as number);
    const wide = row.filter((z) => z < -1e-6).length * field.cellMm;
    expect(Math.abs(wide - 2 * 2 * Math.tan(Math.PI / 6))).toBeLessThan(0.05);
    expect(Math.min(...row)).toBeCloseTo(-2, 1);
  });
  it.each([
    ['end mill', 1.2],
    ['ball', 1.2],
    ['V-bit', 1.2],
    ['tapered', 1.2],
  ] as const)('a sloped way of a %s leaves what the lowest of many level places along it leaves', (kind, depth) => {
    const one = tool({
      kind,
      diameterMm: 4,
      tipMm: kind === 'tapered' ? 1 : 0,
      angle: kind === 'V-bit' ? 70 : kind === 'tapered' ? 20 : null,
    });
    const box = { minX: 0, minY: 0, maxX: 20, maxY: 12 };
    const [from, to]: [Place, Place] = [{ x: 5, y: 4, z: 0.2 }, { x: 15, y: 8, z: -depth }]; // biome-ignore format: ends
    const field = new HeightField(box, 0, 0.1);
    finished(sweepMoves(field, from, [{ isRapid: false, to, sweep: 0, feedMmPerMin: 500 }], one));
    const at = profileOf(one);
    let worst = 0;
    for (let k = 0; k < field.heights.length; k += 7) {
      const p = field.middleOf(k);
      let z = 0;
      for (let j = 0; j <= 4000; j++) {
        const t = j / 4000;
        z = Math.min(z, from.z + (to.z - from.z) * t + at(Math.hypot(p.x - from.x - 10 * t, p.y - from.y - 4 * t)));
      }
      worst = Math.max(worst, Math.abs(z - (field.heights[k] as number)));
    }
    expect(worst).toBeLessThan(0.003);
  });
  it('ridges of a ball between passes s apart are r - sqrt(r² - (s / 2)²) high', () => {
    const ball = tool({ kind: 'ball', diameterMm: 6 });
    const field = new HeightField({ minX: 0, minY: 0, maxX: 10, maxY: 10 }, 0, 0.02);
    const moves = [4, 5.5].flatMap((y): Move[] => [
      { isRapid: true, to: { x: -5, y, z: 5 }, sweep: 0, feedMmPerMin: 0 },
      { isRapid: false, to: { x: -5, y, z: -1 }, sweep: 0, feedMmPerMin: 300 },
      { isRapid: false, to: { x: 15, y, z: -1 }, sweep: 0, feedMmPerMin: 900 },
      { isRapid: true, to: { x: 15, y, z: 5 }, sweep: 0, feedMmPerMin: 0 },
    ]);
    finished(sweepMoves(field, { x: -5, y: 4, z: 5 }, moves, ball));
    const ridge = Math.max(...Array.from({ length: 60 }, (_, k) => field.heights[field.cellAt(5, 4.2 + 0.02 * k)] as number).slice(10, 55));
    expect(ridge + 1).toBeCloseTo(3 - Math.sqrt(9 - 0.75 ** 2), 2);
  });
  it('a rapid through stock is told, and where', () => {
    const field = new HeightField({ minX: 0, minY: 0, maxX: 10, maxY: 10 }, 0, 0.1);
    const { rapids } = finished(sweepMoves(field, { x: 2, y: 5, z: 5 }, [{ isRapid: true, to: { x: 8, y: 5, z: -1 }, sweep: 0, feedMmPerMin: 0 }], endMill)); // biome-ignore format: one line
    expect(rapids).toHaveLength(1);
    expect(rapids[0]?.depthMm).toBeCloseTo(1, 1);
  });
});

describe('a pocket', () => {
  const corner = (1 - Math.PI / 4) * 1.5 ** 2;
  const round = piece('round', 'pocket', circlePath({ x: 50, y: 40 }, 15));
  const rectangle = piece('rectangle', 'pocket', square(30, 30, 40, 20));
  const island = piece('island', 'pocket', square(30, 25, 40, 30), [circlePath({ x: 50, y: 40 }, 6)]);
  it.each([
    ['a round one is cleared whole', round, Math.PI * 225],
    ['of a square corner (1 - pi / 4) r² is left', rectangle, 800 - 4 * corner],
    ['an island stays', island, 1200 - 4 * corner - Math.PI * 36],
  ] as const)('%s', (_, one, area) => {
    expect(Math.abs(milledBy(planOf([one], [endMill], [pocket()])).removedMm3(-6) / (3 * area) - 1)).toBeLessThan(0.001);
  });
  it.each(['spiral', 'lines'] as const)('cleared by %s, and with an allowance for a last pass, is as large', (pattern) => {
    for (const finishMm of [0, 0.2]) {
      const plan = planOf([rectangle], [endMill], [pocket({ pattern, lineAngle: 30, finishMm })]);
      expect(Math.abs(milledBy(plan).removedMm3(-6) / (3 * (800 - 4 * corner)) - 1)).toBeLessThan(0.001);
      expect(finished(provedPlan(plan)).simulated.runsInto).toEqual([]);
    }
  });
  it('a second tool takes what the first leaves, down to its own corners', () => {
    const small = tool({ id: 'small', name: 'Small', diameterMm: 1, stepdownMm: 1 });
    const plan = planOf([rectangle], [endMill, small], [pocket({ restTool: 'small' })]);
    const { milled } = finished(provedPlan(plan));
    expect(milled.gouges).toEqual([]);
    expect(Math.abs((milled.left[0]?.areaMm2 ?? 0) - 4 * (1 - Math.PI / 4) * 0.25)).toBeLessThan(0.03);
  });
  it('a second tool is slowed, too, by what still stands for it', () => {
    const small = tool({ id: 'small', name: 'Small', diameterMm: 1, stepdownMm: 3 });
    // A square with a channel that the first tool does not get into.
    const key = piece('key', 'pocket', polygonPath([{ x: 20, y: 20 }, { x: 40, y: 20 }, { x: 40, y: 29 }, { x: 70, y: 29 }, { x: 70, y: 31.6 }, { x: 40, y: 31.6 }, { x: 40, y: 40 }, { x: 20, y: 40 }])); // biome-ignore format: one line
    const runs = planOf([key], [endMill, small], [pocket({ restTool: 'small', engagement: 60 })]).runs.filter(
      (run) => run.tool.id === 'small',
    );
    const channel = runs.find(({ moves }) => moves.some(({ to }) => to.x > 60));
    expect(channel?.engagement?.largest).toBeGreaterThan(100);
    const feeds = channel?.moves.filter(({ isRapid, to }) => !isRapid && to.x > 45).map(({ feedMmPerMin }) => feedMmPerMin) ?? [];
    expect(Math.min(...feeds)).toBeLessThan(0.7 * small.feedMmPerMin);
    expect(Math.max(...feeds)).toBe(small.feedMmPerMin);
    // What another tool has taken before does not stand.
    const { start, moves } = channel as NonNullable<typeof channel>;
    expect(boundedEngagement(start, moves, 0.5, 3, 60, { start, moves, radiusMm: 0.6 }).engagement.largest).toBe(0);
  });
  it('goes down no steeper than its ramp, and never straight into full stock', () => {
    const plan = planOf([island], [endMill], [pocket({ entryAngle: 2 })]);
    const field = new HeightField(plan.stock, 0, 0.1);
    for (const { start, moves, tool: own } of plan.runs) {
      let at = start;
      for (const move of moves) {
        const flat = Math.hypot(move.to.x - at.x, move.to.y - at.y);
        const before = field.removedMm3(-6);
        finished(sweepMoves(field, at, [move], own));
        const isSteep = !move.isRapid && move.sweep === 0 && at.z - move.to.z > Math.tan((2.01 * Math.PI) / 180) * flat + 1e-6;
        if (isSteep) expect(field.removedMm3(-6) - before).toBeLessThan(1e-6);
        at = move.to;
      }
    }
  });
  it('is slowed where more of the tool’s front bites than the limit, and says how much it does', () => {
    const slot = piece('slot', 'pocket', square(20, 38, 60, 3.2));
    const plan = planOf([slot], [endMill], [pocket({ engagement: 90 })]);
    const run = plan.runs[0];
    expect(run?.engagement?.largest).toBeGreaterThan(150);
    expect(Math.min(...(run?.moves.filter(({ isRapid }) => !isRapid).map(({ feedMmPerMin }) => feedMmPerMin) ?? []))).toBeLessThan(
      900 * 0.7,
    );
    const [wide] = planOf([rectangle], [endMill], [pocket()]).runs;
    // Beside a straight wall it is acos(1 - s / r), of 0.8 of the radius 78.5 degrees.
    expect(wide?.engagement?.mean).toBeGreaterThan(60);
    expect(wide?.engagement?.mean).toBeLessThan(100);
  });
  it('engagement beside a straight wall is acos(1 - s / r)', () => {
    const box = { x: 0, y: 0 };
    const pass = (y: number): Move[] => [
      { isRapid: true, to: { x: 0, y, z: 5 }, sweep: 0, feedMmPerMin: 0 },
      { isRapid: true, to: { x: 0, y, z: -1 }, sweep: 0, feedMmPerMin: 0 },
      { isRapid: false, to: { x: 60, y, z: -1 }, sweep: 0, feedMmPerMin: 900 },
    ];
    const { engagement } = boundedEngagement({ ...box, z: 5 }, [...pass(0), ...pass(2)], 4, 1, 180);
    // Half of the way a full slot, half of it beside the one before.
    expect(engagement.mean).toBeGreaterThan((180 + (Math.acos(1 - 2 / 4) * 180) / Math.PI) / 2 - 10);
    expect(engagement.mean).toBeLessThan((180 + (Math.acos(1 - 2 / 4) * 180) / Math.PI) / 2 + 4);
  });
});

describe('trochoidal loops', () => {
  it('reach as far from a cleared hole as the bite allows: beside a wide one r (1 - cos a), from one of their own size 2 r sin(a - 90)', () => {
    const degrees = Math.PI / 180;
    for (const angle of [30, 60, 90, 140]) {
      const wide = 1e6;
      expect(reachFrom(wide + 2, 2, angle * degrees) - wide).toBeCloseTo(2 * (1 - Math.cos(angle * degrees)), 4);
    }
    expect(reachFrom(2, 2, 120 * degrees)).toBeCloseTo(4 * Math.sin(30 * degrees), 9);
    expect(reachFrom(2, 2, 60 * degrees)).toBeCloseTo(0, 9);
  });
  it('keep a tool in a slot under the limit, where rings bite all round; the slot comes out the same', () => {
    const slot = piece('slot', 'pocket', square(20, 36, 60, 6));
    const [rings, loops] = (['rings', 'loops'] as const).map((pattern) => planOf([slot], [endMill], [pocket({ pattern, engagement: 75 })]));
    expect(rings?.runs[0]?.engagement?.largest).toBeGreaterThan(150);
    expect(loops?.runs[0]?.engagement?.largest).toBeLessThanOrEqual(80 + 5);
    const { milled } = finished(provedPlan(loops as MillPlan));
    expect(milled.gouges).toEqual([]);
    expect(Math.abs(milled.left.reduce((sum, { areaMm2 }) => sum + areaMm2, 0) - (4 - Math.PI) * 1.5 ** 2)).toBeLessThan(0.2);
  });
  it('go round where there is hardly room for the tool as rings do', () => {
    const tight = piece('slot', 'pocket', square(20, 36, 60, 3.1));
    const plan = planOf([tight], [endMill], [pocket({ pattern: 'loops' })]);
    expect(plan.notes.filter(({ isFailure }) => isFailure)).toEqual([]);
    expect(finished(provedPlan(plan)).milled.gouges).toEqual([]);
  });
});

describe('a profile', () => {
  const plate = piece('plate', 'cut', square(25, 20, 50, 40), [square(40, 35, 10, 8)]);
  it('with a last pass is led on to its outline by an arc, and off it, within what the rough pass has cleared', () => {
    const plan = planOf([piece('plate', 'cut', square(25, 20, 50, 40))], [endMill], [profile({ leadMm: 4, finishMm: 0.3, tabs: null })]);
    const deep = plan.runs[0]?.moves.filter(({ to, isRapid }) => !isRapid && to.z < -6) ?? [];
    const arcs = deep.filter(({ sweep }) => Math.abs(Math.abs(sweep) - Math.PI / 2) < 1e-6);
    // Two leads of the tool's radius beside the corners' own arcs of that radius, two rounds of four.
    expect(deep.at(-1)?.sweep).toBeCloseTo(Math.PI / 2, 6);
    expect(arcs.length).toBeGreaterThanOrEqual(6);
    expect(finished(provedPlan(plan)).milled.gouges).toEqual([]);
  });
  it('leaves the piece as it is, cut right through all round but for its tabs', () => {
    const plan = planOf(
      [plate],
      [endMill],
      [profile({ tabs: { count: 4, spacingMm: 0, widthMm: 5, heightMm: 1.5, flanks: 'straight', places: null } })],
    );
    const { milled } = finished(provedPlan(plan));
    expect(milled.gouges).toEqual([]);
    expect(milled.tabs).toHaveLength(4);
    for (const { heightMm } of milled.tabs) expect(heightMm).toBeCloseTo(1.5, 3);
  });
  it.each(['straight', 'sloped'] as const)('a tab with %s flanks is as wide as asked at its top', (flanks) => {
    const plan = planOf([piece('plate', 'cut', square(25, 20, 50, 40))], [endMill], [profile({ tabs: { count: 2, spacingMm: 0, widthMm: 6, heightMm: 2, flanks, places: null } })]); // biome-ignore format: one line
    const field = milledBy(plan, 0.05);
    const at = plan.runs[0]?.tabsAt[0];
    expect(at).toBeDefined();
    if (!at) return;
    // Along the middle of the cut the stock stands at the tab's height for the tab's width.
    const isAcross = Math.abs(at.x - 25) < 3 || Math.abs(at.x - 75) < 3;
    const heights = Array.from({ length: 400 }, (_, k) => {
      const s = (k - 200) * 0.05;
      return field.heights[isAcross ? field.cellAt(at.x, at.y + s) : field.cellAt(at.x + s, at.y)] as number;
    });
    const wide = heights.filter((z) => z > -6 + 2 - 1e-3).length * 0.05;
    expect(Math.abs(wide - 6)).toBeLessThan(0.11);
  });
  it('a skin is left instead of tabs, as thick as typed', () => {
    const plan = planOf([plate], [endMill], [profile({ skinMm: 0.4 })]);
    const field = milledBy(plan, 0.1);
    expect(field.heights.reduce((a, b) => Math.min(a, b), 0)).toBeCloseTo(-5.6, 5);
    expect(plan.runs.flatMap(({ tabsAt }) => tabsAt)).toEqual([]);
  });
  it.each(['climb', 'conventional'] as const)('%s: with rough passes, leads and a last pass the piece is as it is', (direction) => {
    const plan = planOf([plate], [endMill], [profile({ direction, finishMm: 0.25, leadMm: 2, tabs: null })]);
    const { milled, simulated } = finished(provedPlan(plan));
    expect(milled.gouges).toEqual([]);
    expect(simulated.runsInto).toEqual([]);
  });
  it('climbs round the outside clockwise, with the piece on its right', () => {
    const turn = (direction: string): number => {
      const [run] = planOf([piece('plate', 'cut', square(25, 20, 50, 40))], [endMill], [profile({ direction, tabs: null })]).runs;
      const places = run?.moves.filter(({ isRapid, to }) => !isRapid && to.z < -6).map(({ to }) => to) ?? [];
      return pathArea(polygonPath(places.slice(0, -1)));
    };
    expect(turn('climb')).toBeLessThan(0);
    expect(turn('conventional')).toBeGreaterThan(0);
  });
  it('says what stays in inner corners, and that a hole is too narrow', () => {
    const notch = polygonPath([[20, 20], [80, 20], [80, 60], [55, 60], [55, 40], [45, 40], [45, 60], [20, 60]].map(([x, y]) => ({ x: x as number, y: y as number }))); // biome-ignore format: corners
    const plan = planOf([piece('plate', 'cut', notch, [square(30, 30, 2, 2)])], [endMill], [profile()]);
    const said = plan.notes.map(({ message }) => message);
    expect(said.join(' ')).toContain(`leaves ${(2 * (1 - Math.PI / 4) * 2.25).toFixed(2)} mm²`);
    expect(said.join(' ')).toContain('A hole of plate is narrower than End mill');
  });
  it.each(['dog-bone', 'tee'] as const)('%s: a square mate fits into a hole’s corners', (corners) => {
    const plan = planOf([plate], [endMill], [profile({ corners })]);
    const field = milledBy(plan, 0.05);
    expect(finished(provedPlan(plan)).milled.gouges).toEqual([]);
    for (const [x, y] of [[40.06, 35.06], [49.94, 35.06], [49.94, 42.94], [40.06, 42.94]] as const) expect(field.heights[field.cellAt(x, y)]).toBeLessThan(-6); // biome-ignore format: corners
  });
});

describe('a carving', () => {
  it('of a square is a hipped roof upside down: h / 3 (A + B + sqrt(A B)) to its floor', () => {
    const plan = planOf([piece('square', 'pocket', square(45, 35, 10, 10))], [vBit], [{ kind: 'carve', id: 'c', tool: 'v', depthMm: 3 }]);
    const floor = 10 - 2 * 3 * Math.tan(Math.PI / 6);
    const volume = milledBy(plan, 0.025).removedMm3(-6);
    expect(Math.abs(volume / ((3 / 3) * (100 + floor * floor + 10 * floor)) - 1)).toBeLessThan(0.006);
  });
  it('an upright tool clears the floor first, and walls and floor come out where they should', () => {
    const plan = planOf(
      [piece('plate', 'pocket', square(20, 20, 50, 30))],
      [vBit, endMill],
      [{ kind: 'carve', id: 'c', tool: 'v', depthMm: 2, floorTool: 'em' }],
    );
    const { milled } = finished(provedPlan(plan));
    expect(plan.runs.map((run) => run.tool.id)).toEqual(['em', 'v']);
    expect(milled.gouges).toEqual([]);
    expect(milled.left).toEqual([]);
    expect(milled.floorOffMm).toBeLessThan(0.03);
    expect(milled.wallOffMm).toBeLessThan(0.01);
  });
  it('a recess and its plug fit: at the start depth the plug is as large as the recess at its top', () => {
    const leaf = piece('leaf', 'pocket', circlePath({ x: 50, y: 40 }, 8));
    const inlay = (part: string): object => ({ kind: 'inlay', id: part, tool: 'v', part, depthMm: 2.2, glueMm: 0.2, sawMm: 1 });
    const blunt = { ...vBit, tipMm: 0.6 };
    const recess = milledBy(planOf([leaf], [blunt], [inlay('recess')]), 0.05);
    const plug = milledBy(planOf([leaf], [blunt], [inlay('plug')]), 0.05);
    const wide = (field: HeightField, isIn: (z: number) => boolean): number =>
      Array.from({ length: 480 }, (_, k) => field.heights[field.cellAt(38 + 0.05 * k + 0.02, 40.02)] as number).filter(isIn).length * 0.05;
    expect(wide(recess, (z) => z < -1e-4)).toBeCloseTo(16, 0);
    // 2 mm below its face the plug is as wide as the recess is at the top.
    expect(Math.abs(wide(plug, (z) => z > -2) - wide(recess, (z) => z < -1e-4))).toBeLessThan(0.11);
    // Its face is 0.2 mm short of the floor, where it is as wide as the recess is there.
    expect(Math.abs(wide(plug, (z) => z > -1e-4) - wide(recess, (z) => z < -2 + 1e-3))).toBeLessThan(0.11);
    // Put together on every cell they touch along their flanks, with the glue's room under the face.
    const [cut] = planOf([leaf], [blunt], [inlay('recess')]).inlays;
    const fit = finished(inlayFit(cut as InlayCut));
    expect(fit.overlapMm).toBeLessThan(0.01);
    expect(fit.gapMm).toBeLessThan(0.05);
    expect(fit.glueMm).toBeCloseTo(0.2, 3);
    // One that is not its own mirror image is turned over with its plug.
    const fin = piece('fin', 'pocket', polygonPath([{ x: 40, y: 30 }, { x: 62, y: 30 }, { x: 44, y: 48 }])); // biome-ignore format: corners
    const [slanted] = planOf([fin], [blunt], [inlay('recess')]).inlays;
    const laid = finished(inlayFit(slanted as InlayCut));
    // Its corners are as round as the flat tip leaves them in the recess: sharp they would reach 0.15 mm into it.
    expect(laid.overlapMm).toBeLessThan(0.035);
    expect(laid.glueMm).toBeCloseTo(0.2, 3);
    // Without room for the glue the face lies on the floor.
    const steep = finished(inlayFit({ ...(cut as InlayCut), operation: { ...(cut as InlayCut).operation, glueMm: 0 } }));
    expect(steep.glueMm).toBeCloseTo(0, 3);
  });
});

describe('holes, edges and faces', () => {
  const plate = piece('plate', 'cut', square(20, 20, 60, 40), [circlePath({ x: 35, y: 40 }, 2), circlePath({ x: 60, y: 40 }, 4)]);
  const drill = tool({ id: 'd', name: 'Drill', kind: 'drill', diameterMm: 4, angle: 118 });
  it('circles of a drill’s size are drilled with pecks, through with its whole width; others are bored', () => {
    const plan = planOf([plate], [endMill, drill]);
    expect(plan.operations.map(({ kind, tool: id }) => [kind, id])).toEqual([['holes', 'd'], ['holes', 'em'], ['profile', 'em']]); // biome-ignore format: one line
    const [drilled, bored] = plan.runs;
    const lowest = Math.min(...(drilled?.moves.map(({ to }) => to.z) ?? []));
    expect(lowest).toBeCloseTo(-6 - 0.3 - 2 / Math.tan((59 * Math.PI) / 180), 6);
    expect(drilled?.moves.filter(({ isRapid, to }) => isRapid && to.z > 0).length).toBeGreaterThanOrEqual(2);
    const { milled } = finished(provedPlan(plan));
    expect(milled.floorOffMm).toBe(0);
    expect(milled.gouges).toEqual([]);
    expect(bored?.moves.some(({ sweep }) => sweep !== 0)).toBe(true);
    // A turn of a helix of radius R that falls p is sqrt((2 pi R)² + p²) long.
    const turn = bored?.moves.findIndex(({ sweep, to }) => sweep !== 0 && to.z < -0.01) ?? -1;
    const [from, move] = [bored?.moves[turn - 1]?.to as Place, bored?.moves[turn] as Move];
    const radius = Math.hypot(move.to.x - from.x, move.to.y - from.y) / (2 * Math.sin(Math.abs(move.sweep) / 2));
    expect(moveLength(from, move)).toBeCloseTo(Math.hypot(radius * move.sweep, from.z - move.to.z), 9);
  });
  it('a chamfer takes its width off the edge', () => {
    const plan = planOf(
      [piece('plate', 'cut', square(20, 20, 60, 40))],
      [vBit],
      [{ kind: 'chamfer', id: 'c', tool: 'v', widthMm: 1, side: 'outside' }],
    );
    const field = milledBy(plan, 0.02);
    const row = Array.from({ length: 100 }, (_, k) => field.heights[field.cellAt(50, 20 + 0.02 * k + 0.01)] as number);
    expect(Math.abs(row.filter((z) => z < -1e-4).length * field.cellMm - 1)).toBeLessThan(0.05);
    expect(finished(provedPlan(plan)).milled.gouges).toEqual([]);
  });
  it('a floor is held against what lies deepest over it: under a face a pocket, a line, and what is cut out beside', () => {
    const plate = piece('plate', 'cut', square(20, 20, 60, 40));
    const operations = [
      { kind: 'face', id: 'f', tool: 'em', depthMm: 0.5 },
      pocket({ depthMm: 2, pieces: ['bay'] }),
      { kind: 'follow', id: 'l', tool: 'v', depthMm: 0.4, pieces: ['ring'] },
      profile(),
    ];
    const pieces = [plate, piece('bay', 'pocket', square(30, 30, 20, 12)), piece('ring', 'engrave', circlePath({ x: 66, y: 40 }, 6))];
    const { milled } = finished(provedPlan(planOf(pieces, [endMill, vBit], operations)));
    // The rim of the groove is as exact as its arcs.
    expect(milled.floorOffMm).toBeLessThan(0.003);
    expect(milled.gouges).toEqual([]);
  });
  it.each(['lines', 'spiral'] as const)('a face milled in %s is flat, and what follows is as deep below it', (pattern) => {
    const plan = planOf([piece('p', 'pocket', square(40, 30, 20, 20))], [tool({ diameterMm: 12 }), tool({ id: 'k' })], [{ kind: 'face', id: 'f', tool: 'em', depthMm: 0.5, pattern }, { ...pocket(), tool: 'k' }]); // biome-ignore format: one line
    const field = milledBy(plan, 0.2);
    expect(field.heights.every((z) => Math.abs(z + 0.5) < 1e-6 || z < -3)).toBe(true);
    expect(field.heights.reduce((a, b) => Math.min(a, b), 0)).toBeCloseTo(-3.5, 6);
  });
});

describe('a plan', () => {
  const plate = piece('plate', 'cut', square(20, 20, 60, 40));
  it('takes what marks and clears before what parts, with few changes of tool', () => {
    const pieces = [plate, piece('river', 'pocket', square(30, 30, 20, 10)), piece('ring', 'engrave', circlePath({ x: 60, y: 40 }, 8))];
    const plan = planOf(pieces, [endMill, vBit]);
    expect(plan.operations.map(({ kind }) => kind)).toEqual(['follow', 'pocket', 'profile']);
    expect(programsOf(plan).map(({ tool: own }) => own.id)).toEqual(['v', 'em']);
    expect(plan.seconds).toBeGreaterThan(plan.runs.reduce((sum, { seconds }) => sum + seconds, 0) + 59);
  });
  it('is done in the order that a person gives it, without what is switched off', () => {
    const pieces = [plate, piece('river', 'pocket', square(30, 30, 20, 10))];
    const plan = planOf(pieces, [endMill], [profile(), { ...pocket(), isOn: false }]);
    expect(plan.runs.map(({ operation }) => operation.kind)).toEqual(['profile']);
    const turned = planOf(pieces, [endMill], [profile({ isOn: false }), pocket()]);
    expect(turned.runs.map(({ operation }) => operation.kind)).toEqual(['pocket']);
  });
  it.each([
    ['a tool wider than the pocket', [piece('slit', 'pocket', square(30, 30, 20, 2))], [pocket()], {}, 'too wide for slit'],
    ['deeper than its edges', [plate], [profile()], { cutLengthMm: 4 }, 'reach only 4 mm'],
    [
      'deeper than the stock',
      [plate, piece('k', 'pocket', square(30, 30, 9, 9))],
      [pocket({ depthMm: 7 })],
      {},
      'into stock that is 6 mm thick',
    ],
    ['no such tool', [plate], [profile({ tool: 'gone' })], {}, 'has no tool'],
    ['off the stock', [piece('far', 'cut', square(20, 20, 160, 40))], [profile()], {}, 'does not lie on the stock'],
  ] as const)('%s: said plainly, and nothing is made', (_, pieces, operations, more, said) => {
    const plan = planOf([...pieces], [tool(more)], [...operations]);
    expect(plan.notes.filter(({ isFailure }) => isFailure).map(({ message }) => message).join(' ')).toContain(said); // biome-ignore format: one line
  });
  it('says that the thickness is not known, and what the machine cannot reach', () => {
    const unknown = finished(millPlan([plate], { ...plainMilling, tools: [endMill] }, plainMachine, { ...stock, thicknessMm: null }));
    expect(unknown.notes[0]?.message).toContain('How thick is the stock?');
    expect(unknown.runs).toEqual([]);
    // Also where nothing goes right through: a pocket 3 mm deep in stock 2 mm thick would go through the table.
    const shallow = { ...plainMilling, tools: [endMill], operations: [operationSchema.parse(pocket())] };
    const river = piece('river', 'pocket', square(30, 30, 20, 10));
    expect(finished(millPlan([river], shallow, plainMachine, { ...stock, thicknessMm: null })).notes[0]).toMatchObject({ isFailure: true });
    const small = planOf([plate], [endMill], null, {}, { ...plainMachine, bedWidthMm: 50, bedHeightMm: 50, travelZMm: 8 });
    const said = small.notes.map(({ message }) => message).join(' ');
    expect(said).toContain('more than the 50 mm x 50 mm');
    expect(said).toContain('through 11.30 mm of height');
  });
  it('says where a tool would run into a clamp', () => {
    const clamps = [{ x: 16, y: 36, widthMm: 6, heightMm: 6, overMm: 12 }];
    const plan = planOf([plate], [endMill], [profile()], { clamps });
    const { simulated } = finished(provedPlan(plan));
    expect(simulated.runsInto.map(({ what }) => what)).toContain('clamp');
  });
  it('a move 60 mm long at 10 mm/s and 100 mm/s² takes 6.1 s', () => {
    const seconds = secondsOf(
      { x: 0, y: 0, z: 0 },
      [{ isRapid: false, to: { x: 60, y: 0, z: 0 }, sweep: 0, feedMmPerMin: 600 }],
      3000,
      100,
    );
    // v / a to come up to speed, v / a to stop, and the rest at speed: 60 / 10 + 10 / 100.
    expect(seconds).toBeCloseTo(6.1, 9);
  });
  it('on trial shows the stock at any time, and at the end as it is', () => {
    const plan = planOf([plate, piece('river', 'pocket', square(30, 30, 20, 10))], [endMill]);
    const trial = new Trial(plan, 6000, 500);
    const at = (share: number) => finished(trial.at(share * trial.seconds));
    const sum = (heights: Float32Array): number => heights.reduce((a, b) => a + b, 0);
    const [end, middle, start, again] = [at(1), at(0.5), at(0), at(1)];
    expect(sum(start.heights)).toBe(0);
    expect(sum(middle.heights)).toBeGreaterThan(sum(end.heights));
    expect(sum(again.heights)).toBeCloseTo(sum(end.heights), 3);
    expect(new Set(end.operations)).toEqual(new Set([0, 1, 2]));
    // All of the pocket is to be cleared at first; at the end only what is too near its corners for the tool.
    const left = ({ stands, box, columns }: typeof end): number =>
      stands.reduce((a, b) => a + b, 0) * ((box.maxX - box.minX) / columns) ** 2;
    expect(left(start)).toBeGreaterThan(100);
    expect(Math.abs(left(end) - (4 - Math.PI) * 1.5 ** 2)).toBeLessThan(0.6);
  });
});

describe('a table of tools', () => {
  const head = 'name,kind,diameterMm,angleDeg,tipMm,flutes,cutLengthMm,spindleRpm,feedMmPerMin,plungeMmPerMin,stepdownMm,stepover';
  it('is read with what may be left out', () => {
    const [v, ball] = readToolsCsv(
      `${head}\n"V-bit, 60",v-bit,6.35,60,0.1,2,12,18000,900,300,1.5,0.1\nBall,tapered-ball,6,10,1,,,16000,800,200,1,\n`,
    );
    expect(v).toMatchObject({ name: 'V-bit, 60', kind: 'V-bit', angle: 60, tipMm: 0.1, cutLengthMm: 12 });
    expect(ball).toMatchObject({ kind: 'tapered', flutes: 2, cutLengthMm: null, stepover: 0.4 });
  });
  it.each([
    ['A,end-mill,3,,,2,12,18000,900,300,0,0.4', 'Line 2 of the tools: stepdownMm cannot be “0”'],
    ['A,end-mill,3,,,2,12,18000,,300,1,0.4', 'feedMmPerMin cannot be empty'],
    ['A,chisel,3,,,2,12,18000,900,300,1,0.4', '“chisel” is no kind of tool'],
    [',end-mill,3,,,2,12,18000,900,300,1,0.4', 'name cannot be empty'],
    ['A,end-mill,wide,,,2,12,18000,900,300,1,0.4', 'diameterMm cannot be “wide”'],
  ])('%s is refused with its line and column', (row, said) => {
    expect(() => readToolsCsv(`${head}\n${row}\n`)).toThrow(said);
  });
  it('a tool in words is understood, or said that it is not', () => {
    expect(toolSaid('end mill 3.175mm')).toMatchObject({ kind: 'end mill', diameterMm: 3.175 });
    expect(toolSaid('V-bit 60deg tip 0.2mm')).toMatchObject({ kind: 'V-bit', angle: 60, tipMm: 0.2 });
    expect(toolSaid('drill 1/8"'.replace('1/8', '0.125')).diameterMm).toBeCloseTo(3.175, 9);
    expect(() => toolSaid('chisel 3mm')).toThrow('is not understood');
  });
});

it('an operation’s words are kept as they are checked', () => {
  const one: Operation = operationSchema.parse({ kind: 'profile', id: 'p', tool: 't' });
  expect(one).toMatchObject({ isOn: true, side: 'both', depthMm: null, skinMm: 0 });
  expect(operationSchema.safeParse({ kind: 'profile', id: 'p', tool: 't', depthMm: 0 }).success).toBe(false);
});
