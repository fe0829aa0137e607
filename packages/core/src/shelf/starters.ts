/**
 * What a workshop's shelf holds before anybody has put anything on it: invented names; the figures are common practice for a small
 * workshop, to be measured and corrected.
 */
import { type ShelfMachine, shelfMachineSchema } from './machine.ts';
import { type Material, materialSchema } from './material.ts';
import { type Tool, toolSchema } from './tool.ts';

const common = 'Common practice; measure your own.';

const material = (
  name: string,
  kind: Material['kind'],
  [nominalMm, measuredMm]: readonly [number, number],
  densityKgPerM3: number,
  colour: string,
  sheets: readonly (readonly [number, number, number])[],
  more: Partial<Material> = {},
): Material =>
  materialSchema.parse({
    name,
    kind,
    nominalMm,
    measuredMm,
    densityKgPerM3,
    colour,
    sheets: sheets.map(([widthMm, heightMm, count]) => ({ widthMm, heightMm, count })),
    note: common,
    ...more,
  });

const burnt = (kerfMm: number): Material['onMachines'] => [{ machine: 'Heron Lane laser', process: 'laser', kerfMm, settings: {} }];

export const starterMaterials: readonly Material[] = [
  material('Birch plywood, 3 mm', 'wood', [3, 3.1], 680, '#d9bd8b', [[600, 400, 6]], { grain: 'along the width', onMachines: burnt(0.15) }),
  material('Birch plywood, 6 mm', 'wood', [6, 6.2], 680, '#d5b782', [[600, 400, 3]], { grain: 'along the width', onMachines: burnt(0.2) }),
  material('Walnut, 6 mm', 'wood', [6, 6], 640, '#6b4a32', [[450, 150, 4]], { grain: 'along the width' }),
  material('Fibreboard, 3 mm', 'board', [3, 2.9], 800, '#a98a63', [[600, 400, 10]], { onMachines: burnt(0.18) }),
  material('Grey board, 2 mm', 'board', [2, 2], 620, '#9c9a92', [[1000, 700, 12]]),
  material('Folding board, 0.4 mm', 'board', [0.4, 0.4], 750, '#eee7d6', [[1000, 700, 50]]),
  material('Drawing paper, 200 g', 'paper', [0.25, 0.26], 780, '#f5f1e6', [[297, 210, 100]]),
  material('Quilting cotton', 'cloth', [0.25, 0.25], 600, '#7f9bb3', [[1100, 1000, 5]], { grain: 'along the height', pricePer: 'm' }),
  material('Vegetable-tanned leather, 3 mm', 'leather', [3, 3.2], 900, '#b07846', [[600, 300, 2]]),
  material('Foam board, 2 in', 'foam', [50.8, 58], 33, '#e8c7cf', [[1250, 600, 4]]),
  material('Acrylic, clear, 3 mm', 'plastic', [3, 2.87], 1180, '#cfe3ea', [[600, 400, 4]], { onMachines: burnt(0.16) }),
  material('Brass sheet, 0.8 mm', 'metal', [0.8, 0.8], 8500, '#c9a24a', [[300, 100, 5]]),
];

const tool = (name: string, kind: Tool['kind'], more: Partial<Tool>): Tool => toolSchema.parse({ name, kind, note: common, ...more });

export const starterTools: readonly Tool[] = [
  tool('End mill, 3.175 mm', 'end mill', { diameterMm: 3.175, flutes: 2, fluteLengthMm: 12, lengthMm: 38, speedRpm: 16000, feedMmPerMin: 1000, plungeMmPerMin: 300, stepdownMm: 1.5, stepover: 0.4 }),
  tool('End mill, 2 mm', 'end mill', { diameterMm: 2, flutes: 2, fluteLengthMm: 9, lengthMm: 38, speedRpm: 18000, feedMmPerMin: 800, plungeMmPerMin: 200, stepdownMm: 1, stepover: 0.4 }),
  tool('End mill, 1 mm', 'end mill', { diameterMm: 1, flutes: 2, fluteLengthMm: 4, lengthMm: 38, speedRpm: 20000, feedMmPerMin: 400, plungeMmPerMin: 100, stepdownMm: 0.4, stepover: 0.4 }),
  tool('Ball, 3 mm', 'ball', { diameterMm: 3, tipMm: 3, flutes: 2, fluteLengthMm: 12, lengthMm: 38, speedRpm: 18000, feedMmPerMin: 1200, plungeMmPerMin: 300, stepdownMm: 1, stepover: 0.15 }),
  tool('V-bit, 60°', 'V-bit', { diameterMm: 6, tipMm: 0.1, angle: 60, flutes: 2, lengthMm: 38, speedRpm: 16000, feedMmPerMin: 1000, plungeMmPerMin: 300, stepdownMm: 2, stepover: 0.1 }),
  tool('Tapered ball, 1 mm tip', 'tapered', { diameterMm: 6, tipMm: 1, angle: 10, flutes: 2, fluteLengthMm: 30, lengthMm: 75, speedRpm: 18000, feedMmPerMin: 1000, plungeMmPerMin: 250, stepdownMm: 1, stepover: 0.1 }),
  tool('Drill, 3 mm', 'drill', { diameterMm: 3, angle: 118, flutes: 2, fluteLengthMm: 33, lengthMm: 61, speedRpm: 8000, plungeMmPerMin: 200, stepdownMm: 3 }),
  tool('Drill, 6 mm', 'drill', { diameterMm: 6, angle: 118, flutes: 2, fluteLengthMm: 57, lengthMm: 93, speedRpm: 4000, feedMmPerMin: 200, plungeMmPerMin: 200, stepdownMm: 6 }),
  tool('Trailing knife, 45°', 'knife', { angle: 45, offsetMm: 0.25, feedMmPerMin: 12000 }),
  tool('Hot wire, 0.4 mm', 'wire', { diameterMm: 0.4, feedMmPerMin: 300 }),
  tool('Pen, 0.4 mm', 'pen', { diameterMm: 0.4, feedMmPerMin: 6000 }),
  tool('Needle, size 80', 'needle', { diameterMm: 0.8 }),
]; // biome-ignore format: a tool a line

const machine = (
  name: string,
  process: string,
  [bedWidthMm, bedHeightMm]: readonly [number, number],
  more: Partial<ShelfMachine> = {},
): ShelfMachine => shelfMachineSchema.parse({ name, process, bedWidthMm, bedHeightMm, note: common, ...more });

export const starterMachines: readonly ShelfMachine[] = [
  machine('Heron Lane laser', 'laser', [600, 400], { files: ['dxf', 'gcode'] }),
  machine('Ferry Yard laser', 'laser', [1300, 900], { origin: 'upper-left', y: 'down', travelMmPerMin: 18_000, accelerationMmPerS2: 2500, files: ['svg'] }),
  machine('School diode laser', 'laser', [400, 400], { fullS: 255, travelMmPerMin: 3000, files: ['gcode'] }),
  machine('Bench knife', 'knife', [300, 300], { travelMmPerMin: 12_000, files: ['svg'] }),
  machine('Roll knife, 600 mm', 'knife', [600, 2000], { travelMmPerMin: 36_000, files: ['hpgl'] }),
  machine('Sample table', 'knife', [1600, 1200], { dxf: 'plain', files: ['dxf'] }),
  machine('Office printer, A4', 'paper', [297, 210], { files: ['pages'] }),
  machine('Sheet printer, A3', 'paper', [420, 297], { files: ['pages'] }),
  machine('Roll printer, 610 mm', 'paper', [610, 3000], { files: ['pages', 'bleed'] }),
  machine('Mill Race router', 'cnc', [760, 380], { axes: 'xyz', travelZMm: 90, spindleMinRpm: 8000, spindleMaxRpm: 24_000, travelMmPerMin: 3000, accelerationMmPerS2: 300, files: ['gcode', 'sheet'] }),
  machine('Long-arm quilting frame', 'outlines', [3000, 600], { unit: 'in', files: ['dxf'] }),
  machine('Wire cutter', 'outlines', [1000, 500], { dxf: 'plain', files: ['dxf'] }),
]; // biome-ignore format: a machine a line
