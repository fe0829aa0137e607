/**
 * In: the templates of a block and the parts of a quilt. Out: the cutting list: what is cut from which fabric, at which size, how often,
 * and from how many strips; and how much of each fabric that takes.
 * Binding: the quilt's border and 10 in; backing and batting: 4 in more on every side; stems are cut on the bias, as wide as twice the stem and
 * half an inch, out of a square (all common practice). What no ruler cuts is laid out on the cloth with its grain along it.
 */
import { printToType } from '../length/index.ts';
import { english } from '../messages/index.ts';
import { nestedOnSheets } from '../nesting/index.ts';
import { heightOf, type Path, pathBox, pathLength, rectanglePath, widthOf } from '../plane/index.ts';
import { finished } from '../steps.ts';
import type { Block, Stem } from './block.ts';
import { sidePaths } from './outline-sides.ts';
import type { PatchShape } from './patches.ts';
import { fabricOfPart, type Quilt, type QuiltPartKind } from './quilt.ts';
import { byTemplate, type RotaryCut, rotaryCut, upToEighths } from './rotary.ts';
import { fabricAt, inchMm, type QuiltingSettings } from './settings.ts';
import type { Template } from './templates.ts';

/** Patches of a shape that are drawn, or left between those drawn: they are of one fabric until somebody says otherwise. */
export interface PatchSet {
  /** `A`, and `A, ground` of those left between. */
  readonly name: string;
  readonly shape: PatchShape;
  readonly faces: readonly number[];
  readonly reversed: number;
  readonly fabric: number;
}

export function patchSets(block: Block, shapes: readonly PatchShape[], settings: QuiltingSettings): PatchSet[] {
  return shapes.flatMap((shape) => {
    const drawn = shape.patches.filter(({ face }) => block.isDrawn[face]);
    const ground = shape.patches.filter(({ face }) => !block.isDrawn[face]);
    return [
      { patches: drawn, name: shape.name, plain: 0 },
      { patches: ground, name: drawn.length > 0 ? `${shape.name}, ground` : shape.name, plain: 1 },
    ].flatMap(({ patches, name, plain }): PatchSet[] => {
      if (patches.length === 0) return [];
      const reversed = shape.isSymmetric ? 0 : patches.filter(({ isReversed }) => isReversed).length;
      const fabric = fabricAt(settings, settings.fabricOf[name] ?? plain);
      return [{ name, shape, faces: patches.map(({ face }) => face), reversed, fabric }];
    });
  });
}

export interface CuttingRow extends RotaryCut {
  /** A patch's set, or a part of the quilt. */
  readonly what: string;
  readonly kind: 'patch' | 'stem' | QuiltPartKind | 'binding';
  readonly fabric: number;
  /** How many come out, and of them turned over. */
  readonly count: number;
  readonly reversed: number;
  /** How many cuts make them, from how many strips, and how wide these are, mm. */
  readonly cuts: number;
  readonly strips: number;
  readonly stripWidthMm: number;
}

export interface FabricNeed {
  readonly fabric: number;
  /** Along the fabric, mm. */
  readonly lengthMm: number;
}

export interface CuttingList {
  readonly rows: readonly CuttingRow[];
  readonly needs: readonly FabricNeed[];
  readonly binding: { readonly lengthMm: number; readonly strips: number };
  /** Panels lie side by side, each as long as the quilt and its overhang; seams are one fewer. */
  readonly backing: { readonly widthMm: number; readonly heightMm: number; readonly panels: number; readonly lengthMm: number };
  readonly batting: { readonly widthMm: number; readonly heightMm: number };
}

/** Backing and batting reach out over the quilt by so much, mm. */
const overhangMm = 4 * inchMm;
const bindingExtraMm = 10 * inchMm;

export function cuttingList(
  block: Pick<Block, 'stems'>,
  sets: readonly PatchSet[],
  templates: readonly Template[],
  quilt: Quilt,
  settings: QuiltingSettings,
): CuttingList {
  const blocks = quilt.blocks.length;
  const patches = sets.map(({ name, shape, faces, reversed, fabric }) => {
    const template = templates.find((t) => t.shape.name === shape.name) as Template;
    const cut = cutOf(template, settings);
    const count = faces.length * blocks;
    const about = { what: name, kind: 'patch', fabric, count, reversed: reversed * blocks } as const;
    const box = pathBox(template.cutting);
    const row = rowOf(about, cut, settings, [widthOf(box), heightOf(box)]);
    return cut.figure === 'template' ? laidOut(row, template.cutting, settings) : row;
  });
  const stems = block.stems.length > 0 ? [stemRow(block.stems, blocks, settings)] : [];
  const binding = bindingOf(quilt, settings);
  // A block alone is not bound.
  const isQuilt = blocks > 1 || settings.borders.length > 0;
  const rows = [...patches, ...stems, ...partRows(quilt, settings), ...(isQuilt ? [binding.row] : [])];
  return { rows, needs: needsOf(rows), binding, ...layersOf(quilt, settings) };
}

/** How a template's patches are cut: by a ruler where all its sides have the same allowance, or it is a rectangle. */
function cutOf({ shape, sideAllowances }: Template, { technique, allowanceMm }: QuiltingSettings): RotaryCut {
  // Shapes of an appliqué are cut by their templates; its background is cut like any patch.
  if (technique === 'appliqué' && !shape.patches.some(({ face }) => face === 0)) return byTemplate;
  const [first = allowanceMm, ...others] = sideAllowances;
  if (others.every((by) => by === first)) return rotaryCut(shape.outline, first);
  const { figure } = rotaryCut(shape.outline, 0);
  if (figure !== 'square' && figure !== 'rectangle') return byTemplate;
  const [a, b, c, d] = sideAllowances as [number, number, number, number];
  const [foot, side] = sidePaths(shape.outline).map(pathLength) as [number, number];
  const sides = [foot + b + d, side + a + c].sort((p, q) => p - q);
  return { figure: 'rectangle', stripMm: sides[0] as number, lengthMm: sides[1] as number, angle: 90, perCut: 1 };
}

/** So many copies tell how densely a shape can be laid out. */
const mostLaidOut = 24;

/** How much cloth templates take that are laid out with their grain along it, either way up. */
function laidOut(row: CuttingRow, cutting: Path, { usableMm }: QuiltingSettings): CuttingRow {
  const box = pathBox(cutting);
  const count = Math.min(row.count, mostLaidOut);
  const heightMm = (heightOf(box) + betweenMm) * Math.max(1, count);
  const settings = { widthMm: usableMm, heightMm, marginMm: 0, gapMm: betweenMm, angles: [0, Math.PI] };
  const { usedMm, tooLarge } = finished(nestedOnSheets([{ outer: cutting, holes: [], count }], settings));
  return tooLarge.length > 0 ? row : { ...row, strips: 1, stripWidthMm: (usedMm * row.count) / count };
}
const betweenMm = 3;

/** Strips for stems: of a square as large as all of them. */
function stemRow(stems: readonly Stem[], blocks: number, settings: QuiltingSettings): CuttingRow {
  const stripMm = 2 * settings.stemMm + inchMm / 2;
  const lengthMm = blocks * stems.reduce((sum, stem) => sum + stem.lengthMm + stemEndsMm, 0);
  const squareMm = Math.sqrt(lengthMm * stripMm) + stripMm;
  const cuts = Math.ceil(lengthMm / (squareMm * Math.SQRT1_2));
  return { what: 'Stems', kind: 'stem', figure: 'bias strip', stripMm, lengthMm, angle: 45, perCut: 1, fabric: fabricAt(settings, settings.stemFabric), count: stems.length * blocks, reversed: 0, cuts, strips: 1, stripWidthMm: squareMm }; // biome-ignore format: one line
}
/** Left at the two ends of a stem together, mm. */
const stemEndsMm = inchMm;

type About = Pick<CuttingRow, 'what' | 'kind' | 'fabric' | 'count' | 'reversed'>;

/** @param boxMm how large a template is that no ruler cuts */
function rowOf(about: About, cut: RotaryCut, { roundUp, usableMm }: QuiltingSettings, boxMm: readonly number[]): CuttingRow {
  const size = (mm: number | null): number | null => (mm === null ? null : roundUp ? upToEighths(mm) : mm);
  const [stripMm, lengthMm] = [size(cut.stripMm), size(cut.lengthMm)];
  const long = lengthMm ?? Math.max(...boxMm);
  const cuts = Math.ceil(about.count / cut.perCut);
  // Slanted cuts lie farther apart along the strip; triangles of 60 degrees point up and down in turn.
  const stepMm = cut.figure === 'equilateral triangle' ? long / 2 : long / Math.sin((cut.angle * Math.PI) / 180);
  const perStrip = Math.floor((usableMm + 0.5) / stepMm);
  // What is longer than a strip is joined of several.
  const strips = perStrip > 0 ? Math.ceil(cuts / perStrip) : Math.ceil((cuts * stepMm) / usableMm);
  return { ...about, ...cut, stripMm, lengthMm, cuts, strips, stripWidthMm: stripMm ?? Math.min(...boxMm) };
}

const partWords: Readonly<Record<QuiltPartKind, string>> = {
  sash: 'Sash',
  post: 'Post',
  'plain square': 'Plain square',
  'side triangle': 'Side triangle',
  'corner triangle': 'Corner triangle',
  border: 'Border',
};

function partRows({ parts }: Quilt, settings: QuiltingSettings): CuttingRow[] {
  const groups = new Map<string, { about: About; cut: RotaryCut; boxMm: readonly number[] }>();
  for (const part of parts) {
    const { kind, border, outline, role } = part;
    const box = pathBox(outline);
    const isPlainBorder = kind === 'border' && (settings.borders[border]?.pieces ?? 'plain') === 'plain';
    // Borders that are mitred are cut as strips of their full length, and mitred when they are sewn on.
    const cut = rotaryCut(isPlainBorder ? rectanglePath(box) : outline, settings.allowanceMm);
    const boxMm = [widthOf(box), heightOf(box)].map((mm) => mm + 2 * settings.allowanceMm);
    const sorted = [...boxMm].sort((a, b) => a - b);
    const fabric = fabricOfPart(part, settings);
    const key = [kind, border, role, fabric, cut.figure, ...[cut.stripMm ?? sorted[0], cut.lengthMm ?? sorted[1]].map((mm) => mm?.toFixed(3))].join(' '); // biome-ignore format: one line
    const number = kind === 'border' && settings.borders.length > 1 ? `${partWords.border} ${border + 1}` : partWords[kind];
    const what = role === 'first' ? number : `${number}, ${role}`;
    const count = (groups.get(key)?.about.count ?? 0) + 1;
    groups.set(key, { about: { what, kind, fabric, count, reversed: 0 }, cut, boxMm });
  }
  return [...groups.values()].map(({ about, cut, boxMm }) => rowOf(about, cut, settings, boxMm));
}

function bindingOf({ widthMm, heightMm }: Quilt, settings: QuiltingSettings): { lengthMm: number; strips: number; row: CuttingRow } {
  const lengthMm = 2 * (widthMm + heightMm) + bindingExtraMm;
  const strips = Math.ceil(lengthMm / settings.usableMm);
  const fabric = fabricAt(settings, settings.bindingFabric);
  const row: CuttingRow = { what: 'Binding', kind: 'binding', figure: 'rectangle', stripMm: settings.bindingMm, lengthMm: settings.usableMm, angle: 90, perCut: 1, fabric, count: strips, reversed: 0, cuts: strips, strips, stripWidthMm: settings.bindingMm }; // biome-ignore format: one line
  return { lengthMm, strips, row };
}

/** The two layers under the top: backing in panels of the fabric's width, whichever way takes less. */
function layersOf({ widthMm, heightMm }: Quilt, { usableMm, allowanceMm }: QuiltingSettings): Pick<CuttingList, 'backing' | 'batting'> {
  const [w, h] = [widthMm + 2 * overhangMm, heightMm + 2 * overhangMm];
  const ways = [[w, h], [h, w]].map(([across, along]) => {
    const panels = (across as number) <= usableMm ? 1 : Math.ceil(((across as number) - usableMm) / (usableMm - 2 * allowanceMm)) + 1;
    return { panels, lengthMm: panels * (along as number) };
  }); // biome-ignore format: two ways
  const least = ways.reduce((a, b) => (b.lengthMm < a.lengthMm ? b : a));
  return { backing: { widthMm: w, heightMm: h, ...least }, batting: { widthMm: w, heightMm: h } };
}

function needsOf(rows: readonly CuttingRow[]): FabricNeed[] {
  const needs = new Map<number, number>();
  for (const { fabric, strips, stripWidthMm } of rows) needs.set(fabric, (needs.get(fabric) ?? 0) + strips * stripWidthMm);
  return [...needs].map(([fabric, lengthMm]) => ({ fabric, lengthMm })).sort((a, b) => a.fabric - b.fabric);
}

const yardMm = 36 * inchMm;

/** As much as is bought for a length: yards up to the next eighth, metres up to the next tenth. */
export function lengthToBuy(mm: number): string {
  const parts = Math.ceil((mm / yardMm) * 8 - 1e-9);
  return english.quilting.yards(printToType((parts / 8) * inchMm, 'in'), (Math.ceil(mm / 100 - 1e-9) / 10).toFixed(1));
}
