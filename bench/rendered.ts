/**
 * Letters, icons and figures drawn by another renderer (resvg), spoiled in six ways as scans and files are, and traced: how many
 * come out whole, and how far off they are.
 */
import { pathData } from '@nuvet/core/formats';
import { circlePath, type Path, type Point, polygonPath, transformedPath } from '@nuvet/core/plane';
import { greyPicture } from '@nuvet/core/raster';
import { nestedRegions } from '@nuvet/core/shape';
import { finished } from '@nuvet/core/steps';
import { plainTraceSettings, tracePicture } from '@nuvet/core/trace';
import {
  deviationOf,
  nestingOf,
  normalTable,
  polar,
  randomFrom,
  rectangle,
  regularPolygon,
  ringSector,
  roundedRectangle,
  star,
} from '@nuvet/truth';
import { Resvg } from '@resvg/resvg-js';
import sharp, { type Sharp } from 'sharp';
import { icons, letters, type OutsideOutline } from './outside-outlines.ts';

const dpi = 300;
const mmPerPx = 25.4 / dpi;
const worstMm = 0.12;

const conditions = ['clean', 'noise', 'JPEG 60', 'blur of 2 px', 'uneven light', '1 bit'] as const;
export type Condition = (typeof conditions)[number];

export interface RenderedResult {
  readonly isWhole: boolean;
  readonly rmsMm: number;
  readonly worstMm: number;
  readonly segments: number;
  readonly trueSegments: number;
}

/** Figures whose corners, notches and thin bars are hard to keep, 20 to 48 mm large. */
function figures(count: number): OutsideOutline[] {
  const random = randomFrom(271);
  return Array.from({ length: count }, (_, k) => {
    const r = 10 + 14 * random();
    const c = { x: r + 4, y: r + 4 };
    const paths = figureMakers[k % figureMakers.length]?.(c, r, random) ?? [];
    const [outer, ...holes] = paths;
    if (!outer) throw new Error('a figure has an outline');
    const side = 2 * r + 8;
    return {
      name: `figure ${k}`,
      outlines: paths,
      scene: { name: `figure ${k}`, widthMm: side, heightMm: side, pieces: [{ outer, holes }] },
    };
  });
}

const figureMakers: readonly ((c: Point, r: number, random: () => number) => Path[])[] = [
  gear,
  wave,
  (c, r) => [0, 1, 2, 3].map((k) => rectangle(c.x - r + k * 4, c.y - r, 0.8, 2 * r)),
  notched,
  crescent,
  (c, r, random) => [star(c, 5 + Math.floor(4 * random()), r, r * (0.4 + 0.2 * random()), random())],
  (c, r, random) => [regularPolygon(c, 3 + Math.floor(6 * random()), r, random()), circlePath(c, r * 0.3)],
  (c, r, random) => [roundedRectangle(c.x - r, c.y - r * 0.6, 2 * r, 1.2 * r, 1 + 3 * random()), rectangle(c.x - r / 2, c.y - 1, r, 2)],
  (c, r, random) => [ringSector(c, r * 0.6, r, random(), 2 + 2 * random())],
  leaf,
];

/** A wheel of straight-sided teeth. */
function gear(c: Point, r: number, random: () => number): Path[] {
  const teeth = 10 + Math.floor(6 * random());
  const first = random();
  const corners = Array.from({ length: teeth }, (_, k) =>
    [
      [0, 0.84],
      [0.12, 1],
      [0.38, 1],
      [0.5, 0.84],
    ].map(([turn, share]) => polar(c, first + ((k + (turn as number)) * 2 * Math.PI) / teeth, r * (share as number))),
  ).flat();
  return [polygonPath(corners), circlePath(c, r * 0.25)];
}

/** A wavy top over a straight foot, which it meets at 25 to 40 degrees. */
function wave(c: Point, r: number, random: () => number): Path[] {
  const slope = Math.tan(((25 + 15 * random()) * Math.PI) / 180);
  const [left, right] = [c.x - r, c.x + r];
  const foot = c.y - r / 2;
  return [
    {
      start: { x: left, y: foot },
      segments: [
        {
          kind: 'cubic',
          c1: { x: left + r * 0.4, y: foot + r * 0.4 * slope },
          c2: { x: c.x - r * 0.3, y: foot + r * 1.1 },
          to: { x: c.x, y: foot + r * 0.8 },
        },
        {
          kind: 'cubic',
          c1: { x: c.x + r * 0.3, y: foot + r * 0.5 },
          c2: { x: right - r * 0.5, y: foot + r * 0.5 * slope },
          to: { x: right, y: foot },
        },
        { kind: 'line', to: { x: left, y: foot } },
      ],
      closed: true,
    },
  ];
}

/** A disc with a notch that closes to a point. */
function notched(c: Point, r: number, random: () => number): Path[] {
  const half = ((5 + 15 * random()) * Math.PI) / 180;
  const at = 2 * Math.PI * random();
  const [a, b] = [polar(c, at + half, r), polar(c, at - half, r)];
  return [
    {
      start: a,
      segments: [
        { kind: 'arc', to: polar(c, at + Math.PI, r), sweep: Math.PI - half },
        { kind: 'arc', to: b, sweep: Math.PI - half },
        { kind: 'line', to: polar(c, at, r * 0.35) },
        { kind: 'line', to: a },
      ],
      closed: true,
    },
  ];
}

/** Two arcs that meet in sharp tips. */
function crescent(c: Point, r: number, random: () => number): Path[] {
  const turn = 2 * Math.PI * random();
  const [a, b] = [polar(c, turn + 1.9, r), polar(c, turn - 1.9, r)];
  const inner = 1.2 + 0.6 * random();
  return [
    {
      start: b,
      segments: [
        { kind: 'arc', to: a, sweep: 3.8 },
        { kind: 'arc', to: b, sweep: -2 * inner },
      ],
      closed: true,
    },
  ];
}

/** Two bows that meet in a tip of 30 to 50 degrees at either end. */
function leaf(c: Point, r: number, random: () => number): Path[] {
  const turn = 2 * Math.PI * random();
  const sweep = ((30 + 20 * random()) * Math.PI) / 180;
  const [a, b] = [polar(c, turn, r), polar(c, turn + Math.PI, r)];
  return [
    {
      start: a,
      segments: [
        { kind: 'arc', to: b, sweep },
        { kind: 'arc', to: a, sweep },
      ],
      closed: true,
    },
  ];
}

interface Rendered {
  readonly grey: Uint8Array;
  readonly widthPx: number;
  readonly heightPx: number;
  /** The outlines, mm, from the picture's lower left corner, y up. */
  readonly truth: readonly Path[];
}

/** Drawn a little turned, smaller, and between pixels. */
function rendered({ scene, outlines }: OutsideOutline, random: () => number): Rendered {
  const [widthPx, heightPx] = [Math.ceil(scene.widthMm / mmPerPx), Math.ceil(scene.heightMm / mmPerPx)];
  const angle = 0.1 * (random() - 0.5);
  const scale = 0.5 + 0.4 * random();
  const [cos, sin] = [scale * Math.cos(angle), scale * Math.sin(angle)];
  const [x, y] = [scene.widthMm / 2, scene.heightMm / 2];
  const place = { a: cos, b: sin, c: -sin, d: cos, e: x - cos * x + sin * y + 0.1 * random(), f: y - sin * x - cos * y + 0.1 * random() };
  const truth = outlines.map((path) => transformedPath(path, place));
  const [widthMm, heightMm] = [widthPx * mmPerPx, heightPx * mmPerPx];
  const data = truth.map((path) => pathData(path, heightMm)).join(' ');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${widthPx}" height="${heightPx}" viewBox="0 0 ${widthMm} ${heightMm}"><path d="M0 0H${widthMm}V${heightMm}H0Z" fill="#fff"/><path fill-rule="evenodd" d="${data}"/></svg>`;
  const { pixels } = new Resvg(svg).render();
  return { grey: Uint8Array.from({ length: widthPx * heightPx }, (_, p) => pixels[4 * p] as number), widthPx, heightPx, truth };
}

const greyOf = (values: ArrayLike<number>): Uint8Array => Uint8Array.from(values, (v) => Math.max(0, Math.min(255, Math.round(v))));

/** Ink that is not black on paper that is not white, as the sensor sees them. */
const printed = (grey: Uint8Array): Float64Array => Float64Array.from(grey, (v) => 35 + (v / 255) * 200);

function noisy(values: Float64Array, deviation: number, random: () => number): Uint8Array {
  const table = normalTable(random, 4099);
  return greyOf(values.map((v) => v + deviation * (table[Math.floor(random() * table.length)] as number)));
}

async function spoiled({ grey, widthPx, heightPx }: Rendered, condition: Condition, random: () => number): Promise<Uint8Array> {
  const raw = { raw: { width: widthPx, height: heightPx, channels: 1 as const } };
  const bytesOf = async (picture: Sharp) => new Uint8Array(await picture.toColourspace('b-w').raw().toBuffer());
  switch (condition) {
    case 'clean':
      return grey;
    case 'noise':
      return noisy(printed(grey), 12, random);
    case 'JPEG 60':
      return bytesOf(
        sharp(
          await sharp(greyOf(printed(grey)), raw)
            .jpeg({ quality: 60 })
            .toBuffer(),
        ),
      );
    case 'blur of 2 px':
      return noisy(Float64Array.from(await bytesOf(sharp(greyOf(printed(grey)), raw).blur(2))), 3, random);
    case 'uneven light': {
      const [towards, fall] = [2 * Math.PI * random(), 0.45 + 0.15 * random()];
      const lit = printed(grey).map((v, p) => {
        const [u, w] = [(p % widthPx) / widthPx - 0.5, Math.floor(p / widthPx) / heightPx - 0.5];
        return v * (1 - fall * (0.5 + (u * Math.cos(towards) + w * Math.sin(towards)) / 1.42));
      });
      return noisy(lit, 3, random);
    }
    case '1 bit':
      return grey.map((v) => (v < 128 ? 0 : 255));
  }
}

const evenlyFrom = <T>(list: readonly T[], count: number): T[] =>
  Array.from({ length: count }, (_, k) => list[Math.floor((k * list.length) / count)] as T);

export function renderedOutlines(): OutsideOutline[] {
  const alphabet = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz';
  const ofLetters = [...evenlyFrom(letters('libre-baskerville', alphabet), 20), ...evenlyFrom(letters('work-sans', alphabet), 20)];
  return [...ofLetters, ...evenlyFrom(icons(120), 40), ...figures(40)];
}

/** One outline under one condition. */
export async function renderedResult(one: OutsideOutline, condition: Condition, seed: number): Promise<RenderedResult> {
  const random = randomFrom(seed);
  const picture = rendered(one, random);
  const grey = await spoiled(picture, condition, random);
  const traced = tracePicture(greyPicture(grey, picture.widthPx, picture.heightPx), mmPerPx, {
    ...plainTraceSettings,
    toleranceMm: 0.05,
    smallestMm: 0.4,
  });
  const onSheet = { a: mmPerPx, b: 0, c: 0, d: -mmPerPx, e: 0, f: picture.heightPx * mmPerPx };
  const paths = traced.pieces.flatMap(({ outer, holes }) => [outer, ...holes]).map((path) => transformedPath(path, onSheet));
  const off = deviationOf(paths, picture.truth);
  const count = (list: readonly Path[]) => list.reduce((n, { segments }) => n + segments.length, 0);
  return {
    isWhole: nestingOf(traced.pieces).join() === nestingOf(finished(nestedRegions(picture.truth))).join(),
    rmsMm: off.rmsMm,
    worstMm: off.worstMm,
    segments: count(paths),
    trueSegments: count(picture.truth),
  };
}

export async function measureRendered(): Promise<void> {
  const outlines = renderedOutlines();
  for (const condition of conditions) {
    const results: RenderedResult[] = [];
    for (const [k, one] of outlines.entries()) results.push(await renderedResult(one, condition, 1000 + k));
    const whole = results.filter(({ isWhole }) => isWhole).length;
    const near = results.filter((one) => one.isWhole && one.worstMm <= worstMm).length;
    const rms = Math.sqrt(results.reduce((sum, one) => sum + one.rmsMm ** 2, 0) / results.length);
    const segments = results.reduce((n, one) => n + one.segments, 0) / results.reduce((n, one) => n + one.trueSegments, 0);
    console.log(
      `${condition.padEnd(14)} ${whole} of ${results.length} whole, ${near} within ${worstMm} mm; RMS ${rms.toFixed(4)} mm, segments ${segments.toFixed(2)} times theirs`,
    );
  }
}
