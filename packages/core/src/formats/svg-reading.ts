/**
 * In: an SVG file's text. Out: its outlines in mm, y up, as they are seen: styled, placed, clipped.
 * Rests on: SVG 2 (W3C) where it agrees with SVG 1.1 (second edition). Scripts, pictures, links to other files and entities that lie elsewhere
 * are never followed; only the file itself is read.
 */
import { purposeNamed } from '../job/purposes.ts';
import { english, say } from '../messages/index.ts';
import { type Path, transformedPath } from '../plane/path.ts';
import { apply, chain, determinant, identity, shift, stretch, type Transform } from '../plane/transform.ts';
import { combined } from '../shape/combine.ts';
import { Asides, DrawingError, type DrawingRead, type DrawnOutline, type DrawnStroke, ReadingBudget } from './drawing.ts';
import { boxOf, boxRegion, clippedTo, type Region, regionOf, seenByWinding } from './svg-clipping.ts';
import { maxElements, type SvgElement, svgDocument } from './svg-document.ts';
import { absoluteLength, cssPxMm, fontSizeIn, type LengthContext, lengthIn, transformIn, type Viewport, viewBoxOf, viewBoxTransform } from './svg-lengths.ts'; // biome-ignore format: one line
import { shapeNames, shapePaths } from './svg-shapes.ts';
import { rootStyle, type Style, SvgStyles } from './svg-style.ts';

/** Curves leave what they stand for by at most this, mm. */
const toleranceMm = 0.0005;
/** Links followed within links. */
const deepestLink = 40;
/** Elements looked at between two looks at whether to go on. */
const elementsAStep = 5000;
/** Segments of outlines times segments of what they are clipped to. */
const mostClipping = 20_000_000;
/** Regions that something is clipped to, each worked out anew. */
const mostRegions = 3000;
/** Where nothing says how large a drawing is, px. */
const plainViewport: Viewport = { width: 300, height: 150 };

/** Yields the share read. @throws DrawingError where it is no SVG, or stands for more than a job can hold */
export function* readSvg(text: string): Generator<number, DrawingRead> {
  const asides = new Asides();
  const root = yield* svgDocument(text, asides);
  const styles = new SvgStyles(root, asides);
  const byId = new Map<string, SvgElement>();
  const index = (element: SvgElement): void => {
    const { id } = element.attributes;
    if (id && !byId.has(id)) byId.set(id, element);
    element.children.forEach(index);
  };
  index(root);
  const walker = new Walker(byId, styles, asides);
  const { toMm, mmPerUnit, unitIsStated, viewport } = placeOf(root, styles.of(root, rootStyle));
  const outer: Place = { toRoot: toMm, style: rootStyle, lengths: { viewport, fontPx: 16, window: viewport }, purpose: 'cut', clips: [] };
  yield* walker.inside(root, walker.styled(root, outer));
  return { outlines: walker.outlines, mmPerUnit, unitIsStated, asides: asides.list() };
}

/** Where and how what an element holds is drawn. */
interface Place {
  readonly toRoot: Transform;
  readonly style: Style;
  readonly lengths: LengthContext;
  readonly purpose: DrawnOutline['purpose'];
  /** In mm. */
  readonly clips: readonly Region[];
}

/** What was done so far, for a drawing and all that it is clipped to: elements that stand for very many are refused. */
interface Work {
  elements: number;
  clipping: number;
  regions: number;
}

/** Goes through a drawing's elements, and through those that they link to. */
class Walker {
  readonly outlines: DrawnOutline[] = [];
  private readonly budget = new ReadingBudget();
  /** The links that are being followed: one of them again would never end. */
  private readonly following: SvgElement[] = [];

  constructor(
    private readonly byId: ReadonlyMap<string, SvgElement>,
    private readonly styles: SvgStyles,
    private readonly asides: Asides,
    private readonly work: Work = { elements: 0, clipping: 0, regions: 0 },
  ) {}

  /** An element's own style in place of that of what it lies in. */
  styled(element: SvgElement, place: Place): Place {
    const style = this.styles.of(element, place.style);
    const { id, class: classes, 'data-purpose': purpose } = element.attributes;
    const named = purposeNamed([id, classes, purpose].filter(Boolean).join(' '));
    const fontPx = fontSizeIn(style['font-size'] === place.style['font-size'] ? 'inherit' : style['font-size'], place.lengths.fontPx);
    return { ...place, style, lengths: { ...place.lengths, fontPx }, purpose: named ?? place.purpose };
  }

  *walk(element: SvgElement, outer: Place): Generator<number, void> {
    if (++this.work.elements > maxElements)
      throw new DrawingError('too-many', say.files.svgStandsForTooMany(maxElements.toLocaleString('en')));
    if (this.work.elements % elementsAStep === 0) yield 0.9;
    const { name, attributes } = element;
    if (name === 'script') return this.asides.leave('scripts', { isSeen: false });
    if (!drawn.has(name) && !shapeNames.has(name) && !Object.hasOwn(asideElements, name)) return;
    const own = this.styled(element, outer);
    if (own.style.display === 'none') return;
    if (Number(own.style.opacity) === 0) return this.asides.leave(english.files.seeThrough, { isSeen: false });
    const moved = { ...own, toRoot: chain(own.toRoot, this.ownTransform(element, own)) };
    const aside = Object.hasOwn(asideElements, name) ? asideElements[name] : undefined;
    if (aside) {
      if (own.style.visibility !== 'visible') return;
      const at = { x: lengthIn(attributes.x, own.lengths, 'x') ?? 0, y: lengthIn(attributes.y, own.lengths, 'y') ?? 0 };
      return this.asides.leave(aside, { at: apply(moved.toRoot, at) });
    }
    const here = { ...moved, clips: [...moved.clips, ...(yield* this.clipsOf(element, moved))] };
    if (shapeNames.has(name)) return this.shape(element, here);
    if (name === 'use') return yield* this.follow(element, here);
    if (name === 'svg') return yield* this.viewportOf(element, here, null);
    yield* this.inside(element, here);
  }

  /** What an element holds. */
  *inside(element: SvgElement, here: Place): Generator<number, void> {
    if (element.name !== 'switch') {
      for (const child of element.children) yield* this.walk(child, here);
      return;
    }
    const first = element.children.find(isUnderstood);
    if (first) yield* this.walk(first, here);
  }

  private ownTransform({ attributes }: SvgElement, { style, lengths }: Place): Transform {
    const said = style.transform && style.transform !== 'none' ? style.transform : (attributes.transform ?? '');
    const own = transformIn(said, lengths);
    const [x, y = '0'] = (style['transform-origin'] || '').split(/\s+/);
    const at = { x: lengthIn(x, lengths, 'x'), y: lengthIn(y, lengths, 'y') };
    if (own === identity || at.x === null || at.y === null) return own;
    return chain(shift(at.x, at.y), chain(own, shift(-at.x, -at.y)));
  }

  private shape(element: SvgElement, here: Place): void {
    const { style, toRoot, lengths } = here;
    if (style.visibility !== 'visible') return;
    const fills = isPaint(style.fill, style.color) && Number(style['fill-opacity']) !== 0 && element.name !== 'line';
    const stroke = this.strokeOf(here);
    if (!fills && !stroke) {
      this.asides.leave(english.files.neitherFilledNorStroked, { isSeen: false });
      return;
    }
    if (['marker-start', 'marker-mid', 'marker-end'].some((end) => /^url/.test(style[end] ?? ''))) this.asides.leave(english.files.markers);
    const tolerance = toleranceMm / Math.max(1e-9, Math.sqrt(Math.abs(determinant(toRoot))));
    let paths: readonly Path[] = shapePaths(element, style, lengths, tolerance, this.asides);
    for (const path of paths) this.budget.take(1, path.segments.length);
    if (fills && !stroke && style['fill-rule'] !== 'evenodd') paths = seenByWinding(paths);
    this.emit(paths.map((path) => transformedPath(path, toRoot, toleranceMm)), here, fills, stroke); // biome-ignore format: one line
  }

  private emit(paths: readonly Path[], here: Place, fills: boolean, stroke: DrawnStroke | null): void {
    const seen = here.clips.reduce<readonly Path[]>((rest, clip) => this.clipped(rest, clip, fills), paths);
    const purpose = stroke?.dashesMm.length ? (named(here) ?? 'score') : here.purpose;
    for (const path of seen) this.outlines.push({ path, purpose, ...(stroke && !fills && { stroke }) });
  }

  private clipped(paths: readonly Path[], clip: Region, fills: boolean): Path[] {
    const count = (of: readonly Path[]): number => of.reduce((sum, { segments }) => sum + segments.length, 0);
    this.work.clipping += count(paths) * Math.max(1, count(clip));
    if (this.work.clipping > mostClipping) throw new DrawingError('too-many', say.files.clipsTooMany());
    return clippedTo(clip, paths, fills);
  }

  /** The line that a shape is drawn with; null where there is none to see. */
  private strokeOf({ style, lengths, toRoot }: Place): DrawnStroke | null {
    const width = lengthIn(style['stroke-width'], lengths, 'both') ?? 1;
    if (!isPaint(style.stroke, style.color) || Number(style['stroke-opacity']) === 0 || !(width > 0)) return null;
    const scale = style['vector-effect'] === 'non-scaling-stroke' ? cssPxMm : Math.sqrt(Math.abs(determinant(toRoot)));
    const dashes = style['stroke-dasharray'] === 'none' ? [] : (style['stroke-dasharray'] ?? '').split(/[\s,]+/).flatMap((word) => lengthIn(word, lengths, 'both') ?? []); // biome-ignore format: one line
    const isDashed = dashes.some((dash) => dash > 0) && dashes.every((dash) => dash >= 0);
    return {
      widthMm: width * scale,
      ends: style['stroke-linecap'] === 'round' ? 'round' : style['stroke-linecap'] === 'square' ? 'square' : 'flat',
      corners: style['stroke-linejoin'] === 'round' ? 'round' : style['stroke-linejoin'] === 'bevel' ? 'bevel' : 'mitre',
      dashesMm: isDashed ? dashes.map((dash) => dash * scale) : [],
    };
  }

  private *follow(element: SvgElement, here: Place): Generator<number, void> {
    const { attributes } = element;
    const used = this.linked(attributes.href);
    if (!used) return this.asides.leave(english.files.linksToOtherFiles);
    if (this.following.includes(used) || this.following.length >= deepestLink || isWithin(element, used))
      return this.asides.leave(english.files.linksThatLeadBackToThemselves);
    this.following.push(used);
    const n = (key: 'x' | 'y'): number => lengthIn(here.style[key] || attributes[key], here.lengths, key) ?? 0;
    const placed = { ...here, toRoot: chain(here.toRoot, shift(n('x'), n('y'))) };
    if (used.name === 'svg' || used.name === 'symbol') {
      const own = this.styled(used, placed);
      if (own.style.display !== 'none')
        yield* this.viewportOf(used, { ...own, toRoot: chain(own.toRoot, this.ownTransform(used, own)) }, element);
    } else yield* this.walk(used, placed);
    this.following.pop();
  }

  private linked(href: string | undefined): SvgElement | undefined {
    const target = (href ?? '').trim();
    return target.startsWith('#') ? this.byId.get(decoded(target.slice(1))) : undefined;
  }

  /** What lies in a viewport of its own. @param use whose size goes before its own */
  private *viewportOf(element: SvgElement, here: Place, use: SvgElement | null): Generator<number, void> {
    const { attributes } = element;
    const { lengths, style } = here;
    const size = (key: 'width' | 'height', side: 'x' | 'y'): number =>
      lengthIn(use?.attributes[key], lengths, side) ?? lengthIn(style[key] || attributes[key], lengths, side) ?? lengths.viewport[key];
    const viewport = { width: size('width', 'x'), height: size('height', 'y') };
    if (!(viewport.width > 0 && viewport.height > 0)) return;
    const isSymbol = element.name === 'symbol';
    const n = (key: 'x' | 'y'): number => (isSymbol ? 0 : (lengthIn(style[key] || attributes[key], lengths, key) ?? 0));
    const placed = chain(here.toRoot, shift(n('x'), n('y')));
    const box = viewBoxOf(attributes.viewBox);
    const isOpen = style.overflow === 'visible' || style.overflow === 'auto';
    const clip = isOpen ? [] : [regionOf([transformedPath(boxRegion(0, 0, viewport.width, viewport.height), placed, toleranceMm)])];
    const inner: Place = {
      ...here,
      toRoot: box ? chain(placed, viewBoxTransform(box, viewport, attributes.preserveAspectRatio)) : placed,
      lengths: { ...lengths, viewport: box ?? viewport },
      clips: [...here.clips, ...clip],
    };
    yield* this.inside(element, inner);
  }

  /** What an element is clipped to, by a path of clipping or by a mask of plain shapes. */
  private *clipsOf(element: SvgElement, here: Place): Generator<number, Region[]> {
    const found: Region[] = [];
    for (const kind of ['clip-path', 'mask'] as const) {
      const said = here.style[kind] ?? 'none';
      if (said === 'none') continue;
      const target = this.linked(/^url\(\s*["']?([^"')]*)["']?\s*\)/.exec(said)?.[1]);
      if (target?.name !== (kind === 'mask' ? 'mask' : 'clipPath')) {
        // A link to what is not there clips nothing.
        if (!/^url/.test(said)) this.asides.leave(english.files.clipsByShapes);
        continue;
      }
      const region = yield* this.regionIn(target, element, here, kind);
      if (region) found.push(region);
    }
    return found;
  }

  private *regionIn(target: SvgElement, element: SvgElement, here: Place, kind: 'clip-path' | 'mask'): Generator<number, Region | null> {
    if (this.following.includes(target)) {
      this.asides.leave(english.files.linksThatLeadBackToThemselves);
      return null;
    }
    if (++this.work.regions > mostRegions) throw new DrawingError('too-many', say.files.clipsTooMany());
    this.following.push(target);
    const units = target.attributes[kind === 'mask' ? 'maskContentUnits' : 'clipPathUnits'];
    const box = units === 'objectBoundingBox' ? boxOf(yield* this.collected(element, { ...here, toRoot: identity, clips: [] })) : null;
    const own = this.styled(target, { ...here, style: rootStyle, clips: [] });
    const inner = box
      ? chain(here.toRoot, chain(shift(box.minX, box.minY), stretch(box.maxX - box.minX, box.maxY - box.minY)))
      : here.toRoot;
    const toRoot = chain(inner, this.ownTransform(target, own));
    let region: Region = [];
    let isPlain = true;
    for (const child of target.children) {
      const paint = this.styled(child, own).style;
      const light = kind === 'mask' ? lightOf(paint.fill, paint.color) : 1;
      if (light === null) isPlain = false;
      region = shownWith(region, regionOf(yield* this.collected(child, { ...own, toRoot })), (light ?? 1) > 0.5);
    }
    this.following.pop();
    if (!isPlain) this.asides.leave(english.files.masksOfShades);
    // A path of clipping may be clipped itself.
    for (const clip of yield* this.clipsOf(target, { ...own, toRoot: inner })) region = combined([...region], [...clip], 'keep-common');
    return isPlain ? region : null;
  }

  /** The outlines of an element alone, as if they were all filled. */
  private *collected(element: SvgElement, place: Place): Generator<number, Path[]> {
    const walker = new Walker(this.byId, this.styles, new Asides(), this.work);
    walker.following.push(...this.following);
    const painted = { ...place, style: { ...place.style, fill: 'black', visibility: 'visible' } };
    yield* walker.walk(element, painted);
    return walker.outlines.map(({ path }) => path);
  }
}

/** A region with a further area that shows what lies under it, or hides it. */
function shownWith(region: Region, area: Region, shows: boolean): Region {
  if (area.length === 0) return region;
  if (region.length === 0) return shows ? area : [];
  return combined([...region], [...area], shows ? 'unite' : 'take-away');
}

/** What is drawn by what it holds, or by what it links to. */
const drawn = new Set(['svg', 'g', 'a', 'switch', 'use']);
const asideElements: Readonly<Record<string, string>> = {
  image: english.files.picturesInsideTheDrawing,
  text: english.files.svgText,
  foreignObject: english.files.foreignObjects,
};

const named = ({ purpose }: Place): DrawnOutline['purpose'] | null => (purpose === 'cut' ? null : purpose);

const decoded = (text: string): string => {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
};

/** Whether a paint is one to see. */
function isPaint(paint: string | undefined, color: string | undefined): boolean {
  const word = (paint ?? 'none').trim().toLowerCase();
  if (word === 'currentcolor') return isPaint(color === 'currentcolor' ? 'black' : color, undefined);
  return word !== 'none' && word !== '' && word !== 'transparent' && !/^(?:rgba|hsla?|rgb)\(.*[,/]\s*0*(?:\.0*)?%?\s*\)$/.test(alphaOnly(word)) && !/^#(?:[\da-f]{3}0|[\da-f]{6}00)$/.test(word); // biome-ignore format: one line
}
/** Of a colour that says no alpha, nothing that could be taken for one. */
const alphaOnly = (word: string): string => (word.split(/[,/]/).length === 4 || word.includes('/') ? word : '');

/** How light a plain paint is, 0 to 1; null where it is no white and no black. */
function lightOf(paint: string | undefined, color: string | undefined): number | null {
  const word = (paint ?? 'black').trim().toLowerCase();
  if (word === 'currentcolor') return lightOf(color, undefined);
  if (/^(?:white|#fff|#ffffff|rgb\(\s*255\s*[, ]\s*255\s*[, ]\s*255\s*\)|rgb\(\s*100%\s*[, ]\s*100%\s*[, ]\s*100%\s*\))$/.test(word))
    return 1;
  return /^(?:black|#000|#000000|rgb\(\s*0\s*[, ]\s*0\s*[, ]\s*0\s*\))$/.test(word) ? 0 : null;
}

/** Whether an element in a switch is for this reader: English, and without extensions. */
function isUnderstood({ name, attributes }: SvgElement): boolean {
  if (!drawn.has(name) && !shapeNames.has(name) && !Object.hasOwn(asideElements, name)) return false;
  if (attributes.requiredExtensions?.trim() || name === 'foreignObject') return false;
  const { systemLanguage } = attributes;
  return systemLanguage === undefined || systemLanguage.split(',').some((language) => /^en(-|$)/i.test(language.trim()));
}

/** Whether an element lies in another. */
function isWithin(element: SvgElement, other: SvgElement): boolean {
  for (let up: SvgElement | null = element; up; up = up.parent) if (up === other) return true;
  return false;
}

/** From user units to mm, y up. */
function placeOf(
  { attributes }: SvgElement,
  style: Style,
): { toMm: Transform; mmPerUnit: number; unitIsStated: boolean; viewport: Viewport } {
  const box = viewBoxOf(attributes.viewBox);
  const [width, height] = [absoluteLength(style.width || attributes.width), absoluteLength(style.height || attributes.height)];
  // A side that is not said follows from the other.
  const size = box
    ? { width: width?.px ?? (height ? (height.px * box.width) / box.height : box.width), height: height?.px ?? (width ? (width.px * box.height) / box.width : box.height) }
    : { width: width?.px ?? plainViewport.width, height: height?.px ?? plainViewport.height }; // biome-ignore format: two lines
  const toPx = box ? viewBoxTransform(box, size, attributes.preserveAspectRatio) : identity;
  const toMm = chain(stretch(cssPxMm, -cssPxMm), toPx);
  const unitIsStated = Boolean(width?.isPhysical || height?.isPhysical);
  return { toMm, mmPerUnit: Math.sqrt(Math.abs(determinant(toMm))), unitIsStated, viewport: box ?? size };
}
