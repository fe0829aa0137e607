/**
 * The jobs on Heron Lane's bench, a small invented workshop that makes things for a lantern festival: each a drawn
 * scene, how it was scanned, and what its makers have marked so far.
 */
import type { FoamSettings } from '@nuvet/core/foam';
import type { Job, JobTraceSettings } from '@nuvet/core/job';
import type { Point } from '@nuvet/core/plane';
import type { KeptQuilting } from '@nuvet/core/quilting';
import type { Take } from '@nuvet/core/trace';
import type { TraySettings } from '@nuvet/core/tray';
import { badgeSheet } from '../colour-figures.ts';
import type { ColourSheet } from '../colour-scan.ts';
import type { PhotoSettings } from '../photo.ts';
import type { ScanSettings } from '../scan.ts';
import type { Scene } from '../scene.ts';
import { bellBracket } from './bell-bracket.ts';
import { type FoundersTool, foundersSheet, foundersTools } from './founders-tools.ts';
import { harbourQuilt } from './harbour-quilt.ts';
import { heronPanel } from './heron-panel.ts';
import { lanternBox } from './lantern-box.ts';
import { millRaceBlock } from './mill-race-block.ts';
import { otterFloat } from './otter-float.ts';
import { riverWheel } from './river-wheel.ts';
import { cartonBox, seedCarton } from './seed-carton.ts';

export interface DemoJob {
  readonly name: string;
  readonly scene: Scene;
  readonly scan: ScanSettings;
  readonly stock: Pick<Job['making']['stock'], 'name' | 'thicknessMm'>;
  readonly processes: readonly string[];
  /** A pair of the scene's marks and the length that the makers typed for it. */
  readonly known: { readonly mark: string; readonly text: string; readonly mm: number };
  readonly check: string;
  readonly unit: Job['unit'];
  /** What in the scan is traced. */
  readonly take: Take;
  readonly milling?: DemoMilling;
  /** Settings of its quilt that its makers set. */
  readonly quilting?: Partial<KeptQuilting>;
  readonly foam?: Partial<FoamSettings>;
}

/** How a job is milled: with which of the tools that ship, and what its makers set. */
export interface DemoMilling {
  readonly tools: readonly string[];
  readonly settings: Readonly<Record<string, boolean | number>>;
  /** Holes whose middle lies so near the piece's are pockets, mm. */
  readonly pocketsWithinMm?: number;
  /** Radii of rings that are engraved about the piece's middle, mm. */
  readonly ringsMm?: readonly number[];
}

/** A job that came as a photograph, with a frame in it that was marked, or the scale card. */
export interface DemoPhoto {
  readonly name: string;
  readonly scene: Scene;
  readonly photo: PhotoSettings;
  readonly stock: Pick<Job['making']['stock'], 'name' | 'thicknessMm'>;
  readonly processes: readonly string[];
  readonly unit: Job['unit'];
  /** The scene's four marks and what was typed for their width and height. */
  readonly frame: { readonly mark: string; readonly stated: readonly { readonly text: string; readonly value: number }[] } | 'scale card';
  /** What stands on the sheet, each to be laid in a tray. */
  readonly tools?: readonly FoundersTool[];
  readonly tray?: Partial<TraySettings>;
  readonly check: string;
  /** What in the photograph is traced, and what counts as ink. */
  readonly take: Take;
  readonly threshold: JobTraceSettings['threshold'];
  /** Whether only the largest outline is meant to be cut, and the rest is print. */
  readonly onlyLargest?: boolean;
  readonly milling?: DemoMilling;
  readonly quilting?: Partial<KeptQuilting>;
  /** In place of a trace an outline through these of the scene's marks. */
  readonly outline?: { readonly name: string; readonly mark: string };
  /** What the folded box must measure. */
  readonly box?: NonNullable<Job['proof']['box']>;
}

/** A print in several colours, each of which is done otherwise. */
export interface DemoPrint {
  readonly name: string;
  readonly sheet: ColourSheet;
  readonly dpi: number;
  readonly tiltDegrees: number;
  readonly stock: Pick<Job['making']['stock'], 'name' | 'thicknessMm'>;
  readonly processes: readonly string[];
  /** Two places on the sheet that lie level, and what was typed for the length between. */
  readonly known: { readonly places: readonly [Point, Point]; readonly text: string; readonly mm: number };
  readonly colours: JobTraceSettings['colours'];
}

export const demoPrints: readonly DemoPrint[] = [
  {
    name: 'Festival badge, four colours',
    sheet: badgeSheet,
    dpi: 300,
    tiltDegrees: 1.2,
    stock: { name: 'Maple veneer', thicknessMm: 0.6 },
    processes: ['laser'],
    known: { places: [{ x: 8, y: 35 }, { x: 62, y: 35 }], text: '54 mm', mm: 54 }, // biome-ignore format: one line
    colours: [
      { hex: '#b23a2e', purpose: 'cut' },
      { hex: '#263e70', purpose: 'engrave' },
      { hex: '#468054', purpose: 'score' },
      { hex: '#ecb23c', purpose: 'pocket' },
    ],
  },
];

export const demoPhotos: readonly DemoPhoto[] = [
  {
    name: 'Bell-founder’s tools, a tray',
    scene: foundersSheet,
    photo: { widthPx: 3600, heightPx: 2700, tiltDegrees: 14, leanDegrees: 250, turnDegrees: 2, focalShare: 1.1, seed: 53 },
    stock: { name: 'Foam board', thicknessMm: 20 },
    processes: ['tray'],
    unit: 'mm',
    frame: 'scale card',
    tools: foundersTools,
    tray: { widthMm: 300, lengthMm: 220, layout: 'close together', layersMm: [10, 10, 10], clearanceMm: 0.6, cornerMm: 6 },
    check: 'board',
    take: 'shape',
    threshold: 'auto',
  },
  {
    name: 'Ferry bell bracket',
    scene: bellBracket,
    photo: { widthPx: 3200, heightPx: 2400, tiltDegrees: 23, leanDegrees: 75, turnDegrees: -3, seed: 35 },
    stock: { name: 'Aluminium', thicknessMm: 3 },
    processes: ['cnc', 'plan-sheet'],
    milling: { tools: ['End mill, 3.175 mm', 'Drill, 6 mm'], settings: { engraveDepthMm: 0.2 } },
    unit: 'mm',
    frame: { mark: 'sheet', stated: [{ text: '297 mm', value: 297 }, { text: '210 mm', value: 210 }] }, // biome-ignore format: one line
    check: 'plate',
    take: 'shape',
    threshold: 'auto',
  },
  {
    name: 'Seed-packet carton',
    scene: seedCarton,
    photo: { widthPx: 3600, heightPx: 2700, tiltDegrees: 19, leanDegrees: 80, turnDegrees: 2, seed: 41 },
    stock: { name: 'Folding board', thicknessMm: 0.4 },
    processes: ['paper', 'knife'],
    unit: 'mm',
    frame: { mark: 'sheet', stated: [{ text: '297 mm', value: 297 }, { text: '210 mm', value: 210 }] }, // biome-ignore format: one line
    check: 'front',
    take: 'network',
    // Lines alone are too little ink to part it from the paper by.
    threshold: 'local',
    onlyLargest: true,
    box: { ...cartonBox, toleranceMm: 0.5 },
  },
  {
    name: 'Harbour quilt, to be quilted',
    scene: harbourQuilt,
    photo: { widthPx: 2800, heightPx: 2200, tiltDegrees: 24, leanDegrees: 82, turnDegrees: 3, seed: 47 },
    stock: { name: 'Cotton', thicknessMm: null },
    processes: ['quilting'],
    unit: 'in',
    frame: { mark: 'sheet', stated: [{ text: '36 in', value: 914.4 }, { text: '36 in', value: 914.4 }] }, // biome-ignore format: one line
    check: 'block',
    take: 'shape',
    threshold: 'auto',
    outline: { name: 'Middle block', mark: 'middle' },
    quilting: {
      line: {
        pattern: 'mill-wheel',
        over: 'block',
        insetMm: 6.35,
        repeatMm: 101.6,
        rowMm: 76.2,
      },
      pinned: ['corner-petals', 'net', 'stippling'],
    },
  },
];

export const demoJobs: readonly DemoJob[] = [
  {
    name: 'Heron lantern panel',
    scene: heronPanel,
    scan: { dpi: 300, tiltDegrees: 1.4, noise: 5, seed: 31 },
    stock: { name: 'Birch plywood', thicknessMm: 3 },
    processes: ['laser'],
    known: { mark: 'rule', text: '6in', mm: 152.4 },
    check: 'side',
    unit: 'mm',
    take: 'shape',
  },
  {
    name: 'River-wheel badge',
    scene: riverWheel,
    scan: { dpi: 400, tiltDegrees: -2.2, noise: 4, seed: 32 },
    stock: { name: 'Walnut', thicknessMm: 6 },
    processes: ['cnc'],
    milling: {
      tools: ['V-bit, 60°', 'End mill, 2 mm'],
      settings: { slopedPockets: true, pocketDepthMm: 2, engraveDepthMm: 0.4 },
      pocketsWithinMm: 10,
      ringsMm: [32.9, 39.4],
    },
    known: { mark: 'rule', text: '12 cm', mm: 120 },
    check: 'across',
    unit: 'mm',
    take: 'shape',
  },
  {
    name: 'Mill Race block, 12 in',
    scene: millRaceBlock,
    scan: { dpi: 300, tiltDegrees: 0.9, noise: 6, seed: 33 },
    stock: { name: 'Cotton', thicknessMm: null },
    processes: ['quilting', 'paper', 'outlines'],
    quilting: {
      fabrics: [
        { name: 'River indigo', colour: '#35508f' },
        { name: 'Washed linen', colour: '#efe6d2' },
        { name: 'Lantern red', colour: '#b1452e' },
      ],
      columns: 3,
      rows: 4,
      sashingMm: 50.8,
      hasPosts: true,
      sashingFabric: 1,
      postFabric: 2,
      borders: [{ widthMm: 101.6, fabric: 0 }],
      bindingFabric: 2,
      line: {
        pattern: 'river-wave',
        over: 'quilt',
        repeatMm: 203.2,
        rowMm: 101.6,
      },
    },
    known: { mark: 'edge', text: '12"', mm: 304.8 },
    check: 'side',
    unit: 'in',
    take: 'shape',
  },
  {
    name: 'Paddle-otter float',
    scene: otterFloat,
    scan: { dpi: 300, tiltDegrees: -0.8, noise: 5, seed: 34 },
    stock: { name: 'Foam board', thicknessMm: 58 },
    processes: ['foam', 'paper'],
    foam: {
      nose: 'right',
      boards: [
        { thicknessMm: 58, count: 13 },
        { thicknessMm: 20, layers: 2, count: null },
      ],
      glueMm: 0.5,
      shellMm: 25,
      topExponent: 2.2,
      bottomExponent: 2.4,
    },
    known: { mark: 'body', text: '4 ft', mm: 1219.2 },
    check: 'shaft',
    unit: 'in',
    take: 'shape',
  },
  {
    name: 'Lantern box die line',
    scene: lanternBox,
    scan: { dpi: 300, tiltDegrees: 1.1, noise: 5, seed: 36 },
    stock: { name: 'Folding board', thicknessMm: 0.5 },
    processes: ['paper', 'knife'],
    known: { mark: 'rule', text: '150 mm', mm: 150 },
    check: 'side',
    unit: 'mm',
    take: 'network',
  },
];
