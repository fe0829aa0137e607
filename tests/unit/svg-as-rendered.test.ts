/**
 * SVG drawings of every make, read by Nuvet, against the plain paths that resvg (npm), a renderer of its own, makes of the same files: 160 of them, drawn
 * by chance from what the recommendation offers.
 */
import { type DrawingRead, piecesOfDrawing, readSvg } from '@nuvet/core/formats';
import { strokeOutlined } from '@nuvet/core/job';
import { type Path, pathArea, pathBox, polygonOf } from '@nuvet/core/plane';
import { finished } from '@nuvet/core/steps';
import { randomFrom } from '@nuvet/truth';
import { Resvg } from '@resvg/resvg-js';
import { Clipper, FillRule } from 'clipper2-ts';
import { SaxesParser } from 'saxes';
import { describe, expect, it } from 'vitest';
import { type At, farthest } from './lines-apart.ts';

type Matrix = readonly [number, number, number, number, number, number];
const unit: Matrix = [1, 0, 0, 1, 0, 0];
const times = ([a, b, c, d, e, f]: Matrix, [p, q, r, s, t, u]: Matrix): Matrix => [a * p + c * q, b * p + d * q, a * r + c * s, b * r + d * s, a * t + c * u + e, b * t + d * u + f]; // biome-ignore format: one line
const on = ([a, b, c, d, e, f]: Matrix, [x, y]: At): At => [a * x + c * y + e, b * x + d * y + f];

/** Lines of places along path data of absolute lines and curves, as that renderer writes it; every subpath by itself. */
function placesAlong(d: string): { line: At[]; isClosed: boolean }[] {
  return d.split(/(?=M)/).filter((part) => part.trim() !== '').map((part) => {
    const line: At[] = [];
    for (const [, letter, list] of part.matchAll(/([MLCQZ])([^MLCQZ]*)/g)) {
      const v = (list as string).trim().split(/[\s,]+/).map(Number);
      const points = Array.from({ length: Math.floor(v.length / 2) }, (_, k): At => [v[2 * k] as number, v[2 * k + 1] as number]);
      if (letter === 'M' || letter === 'L') line.push(...points);
      else if (letter !== 'Z') {
        const from = line.at(-1) as At;
        for (let k = 1; k <= 250; k++) line.push(bezierAt([from, ...points], k / 250));
      }
    }
    return { line, isClosed: /Z\s*$/.test(part) };
  }); // biome-ignore format: a part a path
}

/** By de Casteljau's construction. */
function bezierAt(points: readonly At[], t: number): At {
  const [only, ...more] = points as [At, ...At[]];
  return more.length === 0 ? only : bezierAt(more.map(([x, y], k): At => [(1 - t) * (points[k] as At)[0] + t * x, (1 - t) * (points[k] as At)[1] + t * y]), t); // biome-ignore format: one line
}

/** Of an element: where it lies, what it is clipped to, and which clipping path it is of. */
interface Level {
  readonly matrix: Matrix;
  readonly clip: readonly At[][][];
  readonly id: string | null;
  readonly isClear: boolean;
}

function levelOf(
  name: string,
  { transform, id, 'clip-path': clipped, opacity }: Record<string, string>,
  outer: Level,
  clips: Map<string, At[][]>,
): Level {
  const own = /matrix\(([^)]*)\)/.exec(transform ?? '')?.[1]?.split(/[\s,]+/).map(Number) as unknown as Matrix | undefined; // biome-ignore format: one line
  const matrix = name === 'clipPath' ? unit : own ? times(outer.matrix, own) : outer.matrix;
  const region = clipped && clips.get(/#([^)]*)\)/.exec(clipped)?.[1] ?? '');
  if (name === 'clipPath') clips.set(id as string, []);
  return {
    matrix,
    clip: region ? [...outer.clip, region.map((line) => line.map((p) => on(matrix, p)))] : outer.clip,
    id: name === 'clipPath' ? (id as string) : outer.id,
    isClear: outer.isClear || opacity === '0',
  };
}

/** What that renderer draws, as lines of places in user units of the root; clipped by clipper2 (npm). */
function rendered(text: string): At[][] {
  const found: At[][] = [];
  const clips = new Map<string, At[][]>();
  const stack: Level[] = [{ matrix: unit, clip: [], id: null, isClear: false }];
  const take = (
    name: string,
    { d, fill, stroke, visibility, 'fill-rule': rule }: Record<string, string>,
    { matrix, clip, id, isClear }: Level,
  ): void => {
    const isSeen = (fill !== 'none' || stroke !== 'none') && visibility !== 'hidden' && !isClear;
    if (name !== 'path' || !d || !(isSeen || id !== null)) return;
    const lines = placesAlong(d).map(({ line, isClosed }) => ({ isClosed, line: line.map((p) => on(matrix, p)) }));
    if (id !== null) clips.get(id)?.push(...lines.map(({ line }) => line));
    else for (const one of lines) found.push(...cut([one], clip, fill !== 'none' && one.isClosed && one.line.length > 2, rule === 'evenodd')); // biome-ignore format: one line
  };
  const parser = new SaxesParser({ xmlns: false });
  parser.on('opentag', ({ name, attributes }) => {
    const at = stack.at(-1) as Level;
    const level = levelOf(name, attributes as Record<string, string>, at, clips);
    stack.push(level);
    take(name, attributes as Record<string, string>, level);
  });
  parser.on('closetag', () => stack.pop());
  parser.write(text).close();
  return found;
}

function cut(lines: readonly { line: At[]; isClosed: boolean }[], clips: readonly At[][][], fills: boolean, isEvenOdd: boolean): At[][] {
  if (clips.length === 0) return lines.map(({ line, isClosed }) => (isClosed ? [...line, line[0] as At] : line));
  if (!fills) return clips.reduce<At[][]>((rest, clip) => rest.flatMap((line) => clip.flatMap((quad) => chordsIn(line, quad))), lines.map(({ line, isClosed }) => (isClosed ? [...line, line[0] as At] : line))); // biome-ignore format: one line
  const scale = 1e5;
  const toPaths = (list: readonly At[][]) =>
    list.map((line) => line.map(([x, y]) => ({ x: Math.round(x * scale), y: Math.round(y * scale) })));
  let rest = toPaths(lines.map(({ line }) => line));
  for (const clip of clips) rest = Clipper.intersect(rest, toPaths(clip), isEvenOdd ? FillRule.EvenOdd : FillRule.NonZero);
  return rest.map((line) => [...line, line[0] as (typeof line)[0]].map(({ x, y }): At => [x / scale, y / scale]));
}

/** Of a line its chords within a quadrangle. */
function chordsIn(line: readonly At[], quad: readonly At[]): At[][] {
  const turned = Math.sign(quad.reduce((sum, [x, y], k) => sum + x * (quad[(k + 1) % quad.length] as At)[1] - y * (quad[(k + 1) % quad.length] as At)[0], 0)); // biome-ignore format: one line
  return line.slice(1).flatMap((q, k) => {
    const p = line[k] as At;
    let [from, to] = [0, 1];
    quad.forEach(([x, y], j) => {
      const [u, v] = quad[(j + 1) % quad.length] as At;
      // What rounding leaves between two sides has no direction.
      if (Math.hypot(u - x, v - y) < 1e-3) return;
      const side = ([a, b]: At): number => turned * ((u - x) * (b - y) - (v - y) * (a - x));
      const [s, e] = [side(p), side(q)];
      if (s < 0 && e < 0) to = -1;
      else if (s < 0) from = Math.max(from, s / (s - e));
      else if (e < 0) to = Math.min(to, s / (s - e));
    });
    const at = (t: number): At => [p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])];
    return from < to ? [[at(from), at(to)]] : [];
  });
}

/** The same of what Nuvet reads, back in user units. */
const linesOf = ({ outlines, mmPerUnit }: DrawingRead): At[][] =>
  outlines.map(({ path }) => {
    const open = polygonOf({ ...path, closed: false } as Path, 0.001).map(({ x, y }): At => [x / mmPerUnit, -y / mmPerUnit]);
    return path.closed ? [...open, open[0] as At] : open;
  });

/** A drawing by chance. */
function drawing(seed: number): string {
  const random = randomFrom(seed);
  const n = (from: number, to: number): number => Number((from + (to - from) * random()).toFixed(2));
  const pick = <T>(list: readonly T[]): T => list[Math.floor(list.length * random())] as T;
  const some = (share: number): boolean => random() < share;
  let [ids, inSymbol] = [0, 0];
  const length = (from: number, to: number): string => {
    const value = n(from, to);
    // In a symbol that renderer takes shares of the whole drawing, which the recommendation does not.
    if (inSymbol > 0) return `${value}`;
    return pick([`${value}`, `${value}px`, `${(value / 4).toFixed(2)}%`, `${(value / 16).toFixed(3)}em`, `${(value * 0.75).toFixed(2)}pt`, `${((value * 25.4) / 96).toFixed(3)}mm`]); // biome-ignore format: one line
  };
  const classes = ['thin', 'wide', 'gone', 'back', 'moved'];
  const defs: string[] = [];
  const look = (): string => {
    const words = [
      pick(['', '', 'fill="none" stroke="#123"', 'fill="#345"', 'style="fill:none;stroke:red"', 'stroke="none" fill="none"', 'fill="none" stroke="blue" stroke-width="0"']),
      some(0.35) ? `class="${pick(classes)}${some(0.3) ? ` ${pick(classes)}` : ''}"` : '',
      some(0.08) ? pick(['display="none"', 'visibility="hidden"', 'style="visibility:hidden"', 'visibility="visible"', 'opacity="0"']) : '',
    ]; // biome-ignore format: a kind a line
    return words[0]?.startsWith('style') && words[2]?.startsWith('style') ? words.slice(0, 2).join(' ') : words.join(' ');
  };
  const place = (): string => (some(0.4) ? ` transform="${pick([`translate(${n(-20, 20)} ${n(-20, 20)})`, `rotate(${n(-60, 60)},${n(0, 99)} ${n(0, 99)})`, `scale(${n(0.5, 1.6)})`, `scale(${n(-1.4, -0.6)} ${n(0.6, 1.4)})`, `skewX(${n(-30, 30)})`, `matrix(${n(0.6, 1.2)} ${n(-0.4, 0.4)} ${n(-0.4, 0.4)} ${n(0.6, 1.2)} ${n(-9, 9)} ${n(-9, 9)})`, `translate(${n(-9, 9)}) rotate(${n(0, 90)}) scale(.8)`])}"` : ''); // biome-ignore format: one line
  const shape = (): string => {
    const rest = `${look()}${place()}`;
    const kind = pick(['rect', 'rect', 'circle', 'ellipse', 'path', 'polygon', 'polyline', 'line']);
    if (kind === 'rect') return `<rect x="${length(0, 200)}" y="${length(0, 200)}" width="${length(20, 120)}" height="${length(20, 120)}" ${pick(['', `rx="${length(2, 18)}"`, `rx="${n(2, 90)}" ry="${n(2, 20)}"`, `ry="${n(1, 9)}"`])} ${rest}/>`; // biome-ignore format: one line
    if (kind === 'circle') return `<circle cx="${length(20, 300)}" cy="${length(20, 200)}" r="${length(5, 60)}" ${rest}/>`;
    if (kind === 'ellipse') return `<ellipse cx="${n(20, 300)}" cy="${n(20, 200)}" rx="${n(5, 60)}" ry="${n(5, 60)}" ${rest}/>`;
    if (kind === 'line') return `<line x1="${n(0, 300)}" y1="${n(0, 200)}" x2="${n(0, 300)}" y2="${n(0, 200)}" stroke="black" ${place()}/>`;
    const points = Array.from({ length: 3 + Math.floor(4 * random()) }, () => `${n(20, 300)},${n(20, 200)}`).join(' ');
    if (kind !== 'path') return `<${kind} points="${points}" ${rest}/>`;
    const steps = Array.from({ length: 1 + Math.floor(4 * random()) }, () => pick([`L${n(0, 300)} ${n(0, 200)}`, `l${n(-60, 60)}-${n(1, 60)}`, `C${n(0, 300)} ${n(0, 200)},${n(0, 300)} ${n(0, 200)},${n(0, 300)} ${n(0, 200)}`, `s${n(5, 60)},${n(5, 60)} ${n(20, 90)},${n(20, 90)}`, `q${n(5, 60)},${n(5, 60)} ${n(20, 90)},${n(20, 90)}`, `h${n(5, 50)}v${n(5, 50)}`, `a${n(30, 60)},${n(30, 60)} ${n(0, 90)} ${pick([0, 1])}${pick([0, 1])}${n(10, 50)},${n(10, 50)}`])); // biome-ignore format: one line
    return `<path d="M${n(20, 200)},${n(20, 200)}${steps.join('')}${pick(['z', 'Z', ''])}" ${rest}/>`;
  };
  const body = (depth: number): string =>
    Array.from({ length: 1 + Math.floor(3 * random()) }, (): string => {
      const kind = depth > 3 ? 0 : random();
      if (kind < 0.5) return shape();
      if (kind < 0.68) return `<g ${look()}${place()}>${body(depth + 1)}</g>`;
      if (kind < 0.76) return `<svg x="${length(0, 90)}" y="${length(0, 90)}" width="${length(90, 260)}" height="${length(90, 260)}" ${pick(['', `viewBox="${n(-20, 20)} ${n(-20, 20)} ${n(100, 400)} ${n(100, 400)}"`])} preserveAspectRatio="${pick(['none', 'xMidYMid', 'xMinYMax meet', 'xMaxYMin slice'])}">${body(depth + 1)}</svg>`; // biome-ignore format: one line
      const id = `d${ids++}`;
      if (kind < 0.84) {
        inSymbol++;
        const inner = body(depth + 2);
        inSymbol--;
        defs.push(`<symbol id="${id}" viewBox="0 0 ${n(200, 400)} ${n(150, 300)}" preserveAspectRatio="${pick(['none', 'xMinYMin', 'xMaxYMax slice'])}">${inner}</symbol>`); // biome-ignore format: one line
        return `<use xlink:href="#${id}" x="${n(0, 60)}" y="${n(0, 60)}" width="${n(60, 200)}" height="${n(60, 200)}" ${look()}${place()}/>`;
      }
      if (kind < 0.92) {
        defs.push(`<g id="${id}">${body(depth + 2)}</g>`);
        return `<use href="#${id}" x="${n(-30, 30)}" y="${n(-30, 30)}" ${look()}${place()}/>`;
      }
      if (kind < 0.96) return `<switch>${pick(['<g systemLanguage="fi">', '<g systemLanguage="en">', '<g requiredExtensions="http://x">'])}${shape()}</g><g>${shape()}</g></switch>`; // biome-ignore format: one line
      defs.push(`<clipPath id="${id}"><rect x="${n(10, 150)}" y="${n(10, 90)}" width="${n(60, 160)}" height="${n(60, 160)}" ${some(0.3) ? `transform="rotate(${n(-20, 20)})"` : ''}/></clipPath>`); // biome-ignore format: one line
      return `<g clip-path="url(#${id})"><circle cx="${n(60, 200)}" cy="${n(60, 160)}" r="${n(30, 70)}"/><rect x="${n(20, 90)}" y="${n(20, 90)}" width="${n(60, 140)}" height="${n(60, 140)}"/></g>`; // biome-ignore format: one line
    }).join('');
  const content = body(0) + shape();
  const sheet = `<style>${some(0.5) ? '<![CDATA[ /* <b> */ ]]>' : '/* plain */'} .gone{display:none} rect.gone{display:inline} g .thin{fill:none;stroke:#000} .wide{stroke:#00f;stroke-width:3 !important} #d0 rect{fill:none;stroke:#222} .back{visibility:visible} svg > path{fill-rule:evenodd} .moved{fill:none} .thin.moved{fill:#111}</style>`; // biome-ignore format: one line
  const size = pick(['width="120mm" height="90mm" viewBox="0 0 400 300"', 'width="400" height="300"', 'width="20cm" height="15cm" viewBox="0 0 400 300"', 'viewBox="0 0 400 300"']); // biome-ignore format: one line
  return `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${size}>${sheet}<defs>${defs.join('')}</defs>${content}</svg>`;
}

describe('an SVG drawing', () => {
  it('of whatever make is read as a renderer draws it: places within a hundredth, nothing lost, nothing more', { timeout: 120_000 }, () => {
    let seen = 0;
    for (let seed = 1; seed <= 160; seed++) {
      const text = drawing(seed);
      const theirs = rendered(new Resvg(text, { font: { loadSystemFonts: false, defaultFontSize: 16 } }).toString()).filter(
        (line) => line.length > 1,
      );
      const read = finished(readSvg(text));
      const ours = linesOf(read);
      const off = ours.length === 0 && theirs.length === 0 ? 0 : Math.max(farthest(ours, theirs), farthest(theirs, ours));
      // Of that a half is how that renderer draws arcs: by cubics, true to 2.7e-4 of their radius.
      expect(off * read.mmPerUnit, `${seed}: ${text}`).toBeLessThan(0.012);
      seen += ours.length;
    }
    expect(seen).toBeGreaterThan(400);
  });
});

const drawn = (inside: string, head = 'width="100mm" height="80mm" viewBox="0 0 100 80"'): DrawingRead =>
  finished(readSvg(`<svg xmlns="http://www.w3.org/2000/svg" ${head}>${inside}</svg>`));
const boxes = ({ outlines }: DrawingRead): string[] =>
  outlines.map(({ path }) => {
    const { minX, minY, maxX, maxY } = pathBox(path);
    return [minX, -maxY, maxX - minX, maxY - minY].map((v) => Number(v.toFixed(2))).join(' ');
  });
const asides = (read: DrawingRead): string[] => read.asides.map(({ what, count, isSeen }) => `${what} ${count} ${isSeen}`);

describe('what the recommendation says of', () => {
  it.each([
    ['none, which stretches', 'width="100mm" height="40mm" viewBox="0 0 100 80" preserveAspectRatio="none"', '10 2.5 40 10'],
    ['slice, which fills', 'width="100mm" height="40mm" viewBox="0 0 50 40" preserveAspectRatio="xMinYMin slice"', '20 10 80 40'],
    ['a width alone', 'width="200mm" viewBox="0 0 100 80"', '20 10 80 40'],
    ['a height alone', 'height="160mm" viewBox="0 0 100 80"', '20 10 80 40'],
  ])('the size of a drawing: %s', (_, head, box) => {
    expect(boxes(drawn('<rect x="10" y="5" width="40" height="20"/>', head))[0]?.split(' ').slice(2)).toEqual(box.split(' ').slice(2));
  });
  it('masks: white shows, black hides; one of shades is left aside with a word', () => {
    const plain = drawn('<mask id="m" maskContentUnits="userSpaceOnUse"><rect width="50" height="80" fill="white"/><circle cx="30" cy="30" r="5"/></mask><rect x="20" y="20" width="60" height="20" mask="url(#m)"/>'); // biome-ignore format: one line
    expect(boxes(plain).sort()).toEqual(['20 20 30 20', '25 25 10 10']);
    const shades = drawn('<linearGradient id="g"/><mask id="m"><rect width="50" height="80" fill="url(#g)"/></mask><rect x="20" y="20" width="60" height="20" mask="url(#m)"/>'); // biome-ignore format: one line
    expect(boxes(shades)).toEqual(['20 20 60 20']);
    expect(asides(shades)[0]).toMatch(/masks of shades.* 1 true/);
  });
  it('clipping in units of a box, nested clipping and lines that are clipped', () => {
    const half = '<clipPath id="c" clipPathUnits="objectBoundingBox"><rect width="0.5" height="1"/></clipPath>';
    expect(boxes(drawn(`${half}<rect x="20" y="20" width="60" height="20" clip-path="url(#c)"/>`))).toEqual(['20 20 30 20']);
    const nested = '<clipPath id="a"><rect width="40" height="80"/></clipPath><clipPath id="b" clip-path="url(#a)"><rect x="30" y="0" width="50" height="80"/></clipPath>'; // biome-ignore format: one line
    expect(boxes(drawn(`${nested}<path d="M0 10H100" fill="none" stroke="red" clip-path="url(#b)"/>`))).toEqual(['30 10 10 0']);
  });
  it('fills that wind twice round a place: no outline within, unless a line is drawn there', () => {
    const twice = '<path d="M0 0H40V40H0Z M10 10H30V30H10Z"';
    expect(boxes(drawn(`${twice}/>`))).toEqual(['0 0 40 40']);
    expect(boxes(drawn(`${twice} stroke="black"/>`)).length).toBe(2);
    expect(boxes(drawn(`${twice} fill-rule="evenodd"/>`)).length).toBe(2);
    expect(boxes(drawn('<path d="M0 0H40V40H0Z M10 10V30H30V10Z"/>')).length).toBe(2);
  });
  it('entities that the file defines, whatever they stand in; one that lies elsewhere, or grows without end, is named', () => {
    const text = '<!DOCTYPE svg [<!ENTITY ns "http://www.w3.org/2000/svg"><!ENTITY w "4&z;"><!ENTITY z "0"><!ENTITY far SYSTEM "file:///etc/hostname"><!ENTITY a "&b;&b;"><!ENTITY b "&a;&a;">]><svg xmlns="&ns;" width="100mm" height="80mm" viewBox="0 0 100 80"><rect x="10" y="10" width="&w;" height="20"/></svg>'; // biome-ignore format: one line
    const read = finished(readSvg(text));
    expect(boxes(read)).toEqual(['10 10 40 20']);
    expect(asides(read).map((one) => one.replace(/,.*/, ''))).toEqual(['the entity “far”', 'the entity “a”', 'the entity “b”']);
  });
  it('rules: an id goes before a class, that before a name, whatever their order; what is important before all', () => {
    const rules = '<style>#off { display: none } .on { display: inline } rect { display: none } .last { display: none !important }</style>';
    expect(boxes(drawn(`${rules}<rect id="off" class="on" width="5" height="5"/><rect class="on" width="6" height="6"/><rect class="last" style="display: inline" width="7" height="7"/>`))).toEqual(['0 0 6 6']); // biome-ignore format: one line
  });
  it('style sheets for print only, in other files, and rules that cannot be read', () => {
    const read = drawn('<style>@import url(other.css); @media print { rect { display: none } } @media screen { .off { display: none } } rect:frob(2) { display: none }</style><rect width="9" height="9"/><rect class="off" width="8" height="8"/>'); // biome-ignore format: one line
    expect(boxes(read)).toEqual(['0 0 9 9']);
    expect(asides(read)).toEqual(['style sheets in other files 1 true', 'style rules that cannot be read 1 true']);
  });
  it('what is not drawn as outlines: named with its count and the place of the first, and whether it is seen', () => {
    const read = drawn('<text x="12" y="30">a</text><text x="50" y="9">b</text><image x="3" y="4" width="9" height="9"/><text visibility="hidden">c</text><rect width="5" height="5" fill="none"/><path d="M0 0h9" stroke="red" marker-end="url(#m)"/>'); // biome-ignore format: one line
    expect(asides(read)).toEqual(['text (turn it into outlines first) 2 true', 'pictures inside the drawing 1 true', 'shapes that are neither filled nor stroked 1 false', 'arrow heads and other marks on lines 1 true']); // biome-ignore format: one line
    const { notes, hasLost } = finished(piecesOfDrawing(read, 'd'));
    expect(hasLost).toBe(true);
    expect(notes[0]).toBe('Left aside: text (turn it into outlines first) (2), the first at 12.0, -30.0 mm.');
  });
  it('elements of other namespaces, and links that lead back to themselves, draw nothing', () => {
    expect(boxes(drawn('<x:rect xmlns:x="urn:x" width="9" height="9"/><s:rect xmlns:s="http://www.w3.org/2000/svg" width="7" height="7"/>'))).toEqual(['0 0 7 7']); // biome-ignore format: one line
    const round = drawn('<clipPath id="c"><g clip-path="url(#c)"><rect width="9" height="9"/></g></clipPath><rect width="20" height="20" clip-path="url(#c)"/><g id="u"><use href="#u"/></g>'); // biome-ignore format: one line
    expect(asides(round).join()).toMatch(/lead back to themselves/);
  });
});

it('a drawing of a few lines that stands for millions, by clipping within clipping, is refused in a sentence', () => {
  const steps = Array.from({ length: 30 }, (_, k) => `<clipPath id="c${k}" clip-path="url(#c${k + 1})"><use href="#g${k + 1}"/><rect width="50" height="50"/></clipPath><g id="g${k}" clip-path="url(#c${k + 1})"><use href="#g${k + 1}"/><use href="#g${k + 1}"/></g>`); // biome-ignore format: one line
  const last = '<clipPath id="c30"><rect width="9" height="9"/></clipPath><g id="g30"><rect width="8" height="8"/></g><use href="#g0"/>';
  expect(() => drawn(steps.join('') + last)).toThrow(/so much .* is clipped/i);
});

describe('lines that are drawn wide', () => {
  const pieces = (inside: string) => finished(piecesOfDrawing(drawn(inside), 'd'));
  const outlined = (inside: string) => pieces(inside).pieces.flatMap(strokeOutlined).map(({ outer, holes }) => [outer, ...holes].map((path) => Math.abs(pathArea(path)))); // biome-ignore format: one line
  it('keep how they are drawn, and their middle is taken; narrower ones are lines', () => {
    const { pieces: found } = pieces('<path d="M10 40H80" fill="none" stroke="black" stroke-width="8"/><path d="M10 60H80" fill="none" stroke="black" stroke-width="0.5"/>'); // biome-ignore format: one line
    expect(found.map(({ strokeMm }) => strokeMm)).toEqual([expect.closeTo(8, 9), undefined]);
    expect(found[0]?.strokeShape).toEqual({ ends: 'flat', corners: 'mitre', dashesMm: [] });
  });
  it('become what is drawn: flat, square and round ends, a mitred corner, a ring, dashes', () => {
    expect(outlined('<path d="M10 40H80" fill="none" stroke="black" stroke-width="8"/>')).toEqual([[expect.closeTo(70 * 8, 6)]]);
    expect(outlined('<path d="M10 40H80" stroke="black" fill="none" stroke-width="8" stroke-linecap="square"/>')).toEqual([[expect.closeTo(78 * 8, 6)]]); // biome-ignore format: one line
    expect(outlined('<g stroke-linecap="round"><path d="M10 40H80" stroke="black" fill="none" stroke-width="8"/></g>')).toEqual([[expect.closeTo(70 * 8 + Math.PI * 16, 3)]]); // biome-ignore format: one line
    expect(outlined('<path d="M10 10H50V50" stroke="black" fill="none" stroke-width="4"/>')).toEqual([[expect.closeTo(80 * 4, 4)]]);
    expect(outlined('<circle cx="50" cy="40" r="20" stroke="black" fill="none" stroke-width="4"/>')).toEqual([[expect.closeTo(Math.PI * 22 ** 2, 3), expect.closeTo(Math.PI * 18 ** 2, 3)]]); // biome-ignore format: one line
    expect(outlined('<path d="M10 40H80" stroke="black" fill="none" stroke-width="2" stroke-dasharray="20 10"/>')).toEqual([[expect.closeTo(40, 6)], [expect.closeTo(40, 6)], [expect.closeTo(20, 6)]]); // biome-ignore format: one line
  });
});
