/**
 * In: an SVG file's text. Out: its outlines in mm, y up.
 * Rests on: SVG 2 (W3C): shapes, transforms, viewBox and units. Scripts, pictures, links to other files and entities
 * are never followed; only the file itself is read.
 */

import { SaxesParser } from 'saxes';
import { purposeNamed } from '../job/purposes.ts';
import { english, say } from '../messages/index.ts';
import { circlePath, type Path, polygonPath, transformedPath } from '../plane/path.ts';
import { distance, type Point } from '../plane/point.ts';
import { chain, determinant, identity, shift, stretch, type Transform, turn } from '../plane/transform.ts';
import { DrawingError, type DrawingRead, type DrawnOutline, ReadingBudget } from './drawing.ts';
import { readPathData } from './svg-path-data.ts';

interface Element {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: Element[];
  readonly parent: Element | null;
}

/** A CSS pixel, mm. */
export const cssPxMm = 25.4 / 96;
/** Curves leave what they stand for by at most this, in the file's own unit. */
const toleranceMm = 0.0005;
/** Deeper than any program nests; a reader's own steps would run out soon after. */
const deepest = 1000;
/** Links followed within links. */
const deepestLink = 40;
const maxElements = 500_000;
const charactersAStep = 400_000;
/** Elements looked at between two looks at whether to go on. */
const elementsAStep = 5000;

/** Yields the share read. @throws DrawingError where it is no SVG, or stands for more than a job can hold */
export function* readSvg(text: string): Generator<number, DrawingRead> {
  const notes = new Map<string, number>();
  const root = yield* parsed(text, notes);
  const { toMm, mmPerUnit, unitIsStated } = placeOf(root);
  const byId = new Map<string, Element>();
  const index = (element: Element): void => {
    const { id } = element.attributes;
    if (id && !byId.has(id)) byId.set(id, element);
    element.children.forEach(index);
  };
  index(root);
  const walker = new Walker(byId, notes);
  yield* walker.walk({ ...root, attributes: { ...root.attributes, transform: '' } }, toMm, { purpose: 'cut', isHidden: false });
  const aside = [...notes].map(([what, n]) => english.files.leftAside(what, n));
  return { outlines: walker.outlines, mmPerUnit, unitIsStated, notes: aside };
}

/** Goes through a drawing's elements, and through those that they link to. */
class Walker {
  readonly outlines: DrawnOutline[] = [];
  private readonly budget = new ReadingBudget();
  private count = 0;
  /** The links that are being followed: one of them again would never end. */
  private readonly following: Element[] = [];

  constructor(
    private readonly byId: ReadonlyMap<string, Element>,
    private readonly notes: Map<string, number>,
  ) {}

  private note(what: string): void {
    this.notes.set(what, (this.notes.get(what) ?? 0) + 1);
  }

  *walk(element: Element, toRoot: Transform, inherited: Look): Generator<number, void> {
    if (++this.count > maxElements) throw new DrawingError('too-many', say.files.svgStandsForTooMany(maxElements.toLocaleString('en')));
    if (this.count % elementsAStep === 0) yield 0.9;
    const { name, attributes } = element;
    const aside = Object.hasOwn(asideElements, name) ? asideElements[name] : undefined;
    if (aside) return this.note(aside);
    const look = lookOf(attributes, inherited);
    if (look.isHidden) return;
    const here = chain(toRoot, transformOf(attributes.transform ?? ''));
    const tolerance = toleranceMm / Math.max(1e-9, Math.sqrt(Math.abs(determinant(here))));
    for (const path of pathsOf(name, attributes, tolerance, this.notes)) {
      this.budget.take(1, path.segments.length);
      this.outlines.push({ path: transformedPath(path, here, toleranceMm), purpose: look.purpose });
    }
    if (name === 'use') return yield* this.follow(element, here, look);
    // What only holds definitions is drawn where it is used.
    for (const child of element.children) if (!onlyUsed.has(child.name)) yield* this.walk(child, here, look);
  }

  private *follow(element: Element, here: Transform, look: Look): Generator<number, void> {
    const { attributes } = element;
    const target = (attributes.href ?? attributes['xlink:href'] ?? '').trim();
    const used = target.startsWith('#') ? this.byId.get(target.slice(1)) : undefined;
    if (!used) return this.note(english.files.linksToOtherFiles);
    if (this.following.includes(used) || this.following.length >= deepestLink || isWithin(element, used))
      return this.note(english.files.linksThatLeadBackToThemselves);
    this.following.push(used);
    yield* this.walk(used, chain(here, shift(lengthOf(attributes.x), lengthOf(attributes.y))), look);
    this.following.pop();
  }
}

/** Whether an element lies in another. */
function isWithin(element: Element, other: Element): boolean {
  for (let up: Element | null = element; up; up = up.parent) if (up === other) return true;
  return false;
}

const onlyUsed = new Set(['defs', 'symbol', 'clipPath', 'mask', 'pattern', 'marker', 'linearGradient', 'radialGradient', 'filter']);
const asideElements: Readonly<Record<string, string>> = {
  script: 'scripts',
  image: english.files.picturesInsideTheDrawing,
  text: english.files.svgText,
  foreignObject: english.files.foreignObjects,
};

function* parsed(text: string, notes: Map<string, number>): Generator<number, Element> {
  const stack: Element[] = [{ name: '', attributes: {}, children: [], parent: null }];
  let elements = 0;
  const parser = new SaxesParser({ xmlns: false });
  let fault: string | null = null;
  parser.on('opentag', ({ name, attributes }) => {
    const local = name.replace(/^svg:/, '');
    const parent = stack.at(-1) as Element;
    const element = { name: local, attributes: attributes as Record<string, string>, children: [], parent };
    parent.children.push(element);
    if (++elements > maxElements) throw new DrawingError('too-many', say.files.svgTooMany(maxElements.toLocaleString('en')));
    if (stack.length > deepest) throw new DrawingError('too-many', say.files.svgTooDeep(deepest.toLocaleString('en')));
    stack.push(element);
    if (Object.keys(attributes).some((key) => /^on[a-z]+$/.test(key))) notes.set('scripts', (notes.get('scripts') ?? 0) + 1);
  });
  parser.on('closetag', () => stack.pop());
  parser.on('doctype', (doctype) => {
    if (/<!ENTITY/i.test(doctype)) notes.set('entities', 1);
  });
  parser.on('error', (error) => {
    // An entity that the file defines is left as it stands.
    if (!/entity/i.test(error.message)) fault ??= error.message;
  });
  for (let at = 0; at < text.length; at += charactersAStep) {
    parser.write(text.slice(at, at + charactersAStep));
    yield at / text.length;
  }
  parser.close();
  const root = (stack[0] as Element).children.find((e) => e.name === 'svg');
  if (!root) throw new DrawingError('not-readable', say.files.noSvg());
  if (fault) notes.set('what follows a fault in the file', 1);
  return root;
}

/** From user units to mm, y up. */
function placeOf({ attributes }: Element): { toMm: Transform; mmPerUnit: number; unitIsStated: boolean } {
  const box = (attributes.viewBox ?? '').split(/[\s,]+/).map(Number);
  const hasBox = box.length === 4 && box.every(Number.isFinite) && (box[2] as number) > 0 && (box[3] as number) > 0;
  const [width, height] = [absolute(attributes.width), absolute(attributes.height)];
  const scales = hasBox
    ? [width && width.mm / (box[2] as number), height && height.mm / (box[3] as number)].filter((s): s is number => Boolean(s))
    : [];
  // The whole box is fitted in, as `preserveAspectRatio` has it where it says nothing.
  const mmPerUnit = scales.length > 0 ? Math.min(...scales) : cssPxMm;
  const unitIsStated =
    Boolean((width?.isPhysical || height?.isPhysical) && (hasBox || scales.length > 0)) || Boolean(!hasBox && width?.isPhysical);
  return { toMm: stretch(mmPerUnit, -mmPerUnit), mmPerUnit, unitIsStated };
}

const unitsMm: Readonly<Record<string, number>> = {
  mm: 1,
  cm: 10,
  in: 25.4,
  pt: 25.4 / 72,
  pc: 25.4 / 6,
  q: 0.25,
  px: cssPxMm,
  '': cssPxMm,
};

function absolute(text: string | undefined): { mm: number; isPhysical: boolean } | null {
  const found = /^\s*([+-]?[\d.]+(?:e[+-]?\d+)?)\s*(mm|cm|in|pt|pc|q|px|)\s*$/i.exec(text ?? '');
  if (!found) return null;
  const unit = (found[2] as string).toLowerCase();
  const mm = Number(found[1]) * (unitsMm[unit] as number);
  return mm > 0 ? { mm, isPhysical: unit !== 'px' && unit !== '' } : null;
}

/** A length in user units; physical units count in CSS pixels, as the standard has it. */
function lengthOf(text: string | undefined): number {
  const value = Number.parseFloat(text ?? '');
  if (!Number.isFinite(value)) return 0;
  const unit =
    /[a-z]+\s*$/i
      .exec(text ?? '')?.[0]
      .trim()
      .toLowerCase() ?? '';
  return value * ((unitsMm[unit] ?? cssPxMm) / cssPxMm);
}

interface Look {
  readonly purpose: DrawnOutline['purpose'];
  readonly isHidden: boolean;
}

function lookOf(attributes: Readonly<Record<string, string>>, inherited: Look): Look {
  const style = attributes.style ?? '';
  const property = (name: string) => new RegExp(`(?:^|;)\\s*${name}\\s*:\\s*([^;]+)`).exec(style)?.[1]?.trim() ?? attributes[name];
  const named = purposeNamed([attributes.id, attributes.class, attributes['data-purpose']].filter(Boolean).join(' '));
  const dash = property('stroke-dasharray');
  const isDashed = dash !== undefined && dash !== 'none' && /[1-9]/.test(dash);
  return {
    purpose: named ?? (isDashed ? 'score' : inherited.purpose),
    isHidden: property('display') === 'none' || property('visibility') === 'hidden',
  };
}

/** A list of transforms, the last one done first. */
function transformOf(text: string): Transform {
  let whole = identity;
  for (const [, name, list] of text.matchAll(/(matrix|translate|scale|rotate|skewX|skewY)\s*\(([^)]*)\)/g)) {
    const v = (list as string)
      .split(/[\s,]+/)
      .filter(Boolean)
      .map(Number);
    if (v.some((n) => !Number.isFinite(n))) continue;
    const [p = 0, q, r, s = 0, t = 0, u = 0] = v;
    const angle = (p * Math.PI) / 180;
    const step = (
      {
        matrix: () => ({ a: p, b: q ?? 0, c: r ?? 0, d: s, e: t, f: u }),
        translate: () => shift(p, q ?? 0),
        scale: () => stretch(p, q ?? p),
        rotate: () => chain(shift(q ?? 0, r ?? 0), chain(turn(angle), shift(-(q ?? 0), -(r ?? 0)))),
        skewX: () => ({ ...identity, c: Math.tan(angle) }),
        skewY: () => ({ ...identity, b: Math.tan(angle) }),
      }[name as 'matrix'] as () => Transform
    )();
    whole = chain(whole, step);
  }
  return whole;
}

function pathsOf(name: string, a: Readonly<Record<string, string>>, tolerance: number, notes: Map<string, number>): Path[] {
  const n = (key: string) => lengthOf(a[key]);
  switch (name) {
    case 'path': {
      const { paths, isWhole } = readPathData(a.d ?? '', tolerance);
      if (!isWhole && a.d) notes.set('path data after a fault in it', (notes.get('path data after a fault in it') ?? 0) + 1);
      return paths;
    }
    case 'circle':
      return n('r') > 0 ? [circlePath({ x: n('cx'), y: n('cy') }, n('r'))] : [];
    case 'ellipse':
      if (!(n('rx') > 0 && n('ry') > 0)) return [];
      return [transformedPath(circlePath({ x: 0, y: 0 }, 1), chain(shift(n('cx'), n('cy')), stretch(n('rx'), n('ry'))), tolerance)];
    case 'rect':
      return n('width') > 0 && n('height') > 0 ? [rectangle(n('x'), n('y'), n('width'), n('height'), a, tolerance)] : [];
    case 'line':
      return chordsThrough([{ x: n('x1'), y: n('y1') }, { x: n('x2'), y: n('y2') }], false); // biome-ignore format: one line
    case 'polyline':
    case 'polygon':
      return chordsThrough(pointList(a.points ?? ''), name === 'polygon');
    default:
      return [];
  }
}

/** Points up to the first that is no pair of numbers, as the standard asks. */
function pointList(text: string): Point[] {
  const v = text.split(/[\s,]+/).filter(Boolean).map(Number); // biome-ignore format: one line
  const points: Point[] = [];
  for (let k = 0; k + 1 < v.length && Number.isFinite(v[k]) && Number.isFinite(v[k + 1]); k += 2) {
    points.push({ x: v[k] as number, y: v[k + 1] as number });
  }
  return points;
}

/** Straight lines from point to point; none where all lie on one place. */
function chordsThrough(points: readonly Point[], isClosed: boolean): Path[] {
  const [start, ...rest] = points.filter((p, k) => k === 0 || distance(p, points[k - 1] as Point) > 0);
  const last = rest.at(-1);
  if (!start || !last) return [];
  const meets = rest.length > 2 && distance(start, last) === 0;
  if (isClosed && rest.length > 1) return [polygonPath([start, ...(meets ? rest.slice(0, -1) : rest)])];
  return [{ start, segments: rest.map((to) => ({ kind: 'line', to })), closed: meets }];
}

/** Corners rounded where the rectangle asks for it. */
function rectangle(x: number, y: number, w: number, h: number, a: Readonly<Record<string, string>>, tolerance: number): Path {
  const [givenX, givenY] = [a.rx === undefined ? undefined : lengthOf(a.rx), a.ry === undefined ? undefined : lengthOf(a.ry)];
  const rx = Math.min(w / 2, givenX ?? givenY ?? 0);
  const ry = Math.min(h / 2, givenY ?? givenX ?? 0);
  if (!(rx > 0 && ry > 0)) {
    return polygonPath([
      { x, y },
      { x: x + w, y },
      { x: x + w, y: y + h },
      { x, y: y + h },
    ]);
  }
  // Absolute throughout, so that the last corner ends where the first begins, to the last digit.
  const radii = `${rx} ${ry} 0 0 1`;
  const d = `M${x + rx} ${y}H${x + w - rx}A${radii} ${x + w} ${y + ry}V${y + h - ry}A${radii} ${x + w - rx} ${y + h}H${x + rx}A${radii} ${x} ${y + h - ry}V${y + ry}A${radii} ${x + rx} ${y}z`;
  return readPathData(d, tolerance).paths[0] as Path;
}
