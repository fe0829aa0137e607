/**
 * In: pieces in mm, y up. Out: an SVG file at true size: width, height and viewBox in mm, one path a piece with its
 * holes, filled even-odd, grouped by purpose.
 * Rests on: SVG 1.1 (W3C 2011), paths with M, L, A, C and Z.
 */

import { cleanText } from '../job/clean-text.ts';
import { type Purpose, purposeKinds, purposes } from '../job/purposes.ts';
import { arcOps, circleOf } from '../plane/arc.ts';
import { axesOf, ellipseOps, turnsLeft } from '../plane/ellipse.ts';
import type { Path } from '../plane/path.ts';
import { reducedSteps } from '../plane/path.ts';
import type { Point } from '../plane/point.ts';
import type { ArcSegment, EllipseSegment } from '../plane/segment.ts';
import { type FilePiece, placedAtOrigin } from './placement.ts';

/** A tenth of a micrometre: far below what any machine resolves. */
const decimals = 4;
/** Wider arcs are divided, radians. */
const widestArc = 2;
/** Of a page, mm. */
const minSideMm = 0.1;
const figure = (value: number): string => String(Number(value.toFixed(decimals)));

/** @throws EmptyFileError where there are no pieces */
export function writeSvg(pieces: readonly FilePiece[], title: string, unit: 'mm' | 'in' = 'mm'): string {
  const { pieces: placedPieces, widthMm, heightMm } = placedAtOrigin(pieces);
  // A drawing of one level or plumb line has no height or width; a viewBox must have both.
  const placed = { pieces: placedPieces, widthMm: Math.max(widthMm, minSideMm), heightMm: Math.max(heightMm, minSideMm) };
  const [width, height] = [figure(placed.widthMm), figure(placed.heightMm)];
  const size = (mm: number): string => (unit === 'mm' ? `${figure(mm)}mm` : `${Number((mm / 25.4).toFixed(6))}in`);
  const groups = purposes.flatMap((purpose) => {
    const paths = placed.pieces.filter((p) => p.purpose === purpose).map((p) => `    ${pathElement(p, placed.heightMm)}`);
    return paths.length > 0 ? [`  <g id="${purpose}" ${strokeOf(purpose)}>`, ...paths, '  </g>'] : [];
  });
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" version="1.1" width="${size(placed.widthMm)}" height="${size(placed.heightMm)}" viewBox="0 0 ${width} ${height}">`,
    `  <title>${escaped(title)}</title>`,
    `  <desc>True size, ${width} x ${height} mm. One unit is one millimetre.</desc>`,
    ...groups,
    '</svg>',
    '',
  ].join('\n');
}

function strokeOf(purpose: Purpose): string {
  const { colour, widthMm: width, dashMm } = purposeKinds[purpose].look;
  const pattern = dashMm.length > 0 ? ` stroke-dasharray="${dashMm.join(' ')}"` : '';
  return `fill="none" stroke="${colour}" stroke-width="${width}"${pattern} stroke-linejoin="round"`;
}

function pathElement({ name, outer, holes }: FilePiece, heightMm: number): string {
  const data = [outer, ...holes].map((path) => pathData(path, heightMm)).join(' ');
  return `<path fill-rule="evenodd" d="${data}"><title>${escaped(name)}</title></path>`;
}

/** What a kind of curve that SVG has not may be off, mm. */
const curveToleranceMm = 0.0005;

/** Path data with y turned down from the top of a box of the height given. */
export function pathData(path: Path, heightMm: number): string {
  const at = ({ x, y }: Point): string => `${figure(x)} ${figure(heightMm - y)}`;
  const parts = reducedSteps(path, ['line', 'arc', 'ellipse', 'cubic'], curveToleranceMm).flatMap(({ from, segment }): string[] => {
    if (segment.kind === 'line') return [`L${at(segment.to)}`];
    if (segment.kind === 'cubic') return [`C${at(segment.c1)} ${at(segment.c2)} ${at(segment.to)}`];
    return segment.kind === 'arc' ? arcData(from, segment, at) : ellipseData(from, segment, at);
  });
  return `M${at(path.start)} ${parts.join(' ')}${path.closed ? ' Z' : ''}`;
}

/**
 * SVG finds an arc's centre from its ends and radius: near a half turn the last printed digit would move it by
 * hundredths of a millimetre, so that wide arcs are written as several.
 */
function arcData(from: Point, arc: ArcSegment, at: (p: Point) => string): string[] {
  if (Math.abs(arc.sweep) > widestArc) {
    const [first, second] = arcOps.split(from, arc, 0.5);
    return [...arcData(from, first, at), ...arcData(first.to, second, at)];
  }
  const radius = figure(circleOf(from, arc).radius);
  // With y down a counter-clockwise arc runs against the positive angle.
  return [`A${radius} ${radius} 0 0 ${arc.sweep > 0 ? 0 : 1} ${at(arc.to)}`];
}

/** As arcs of the ellipse, each turned by its longer axis; divided as circles are. */
function ellipseData(from: Point, s: EllipseSegment, at: (p: Point) => string): string[] {
  if (s.sweep > widestArc) {
    const [first, second] = ellipseOps.split(from, s, 0.5);
    return [...ellipseData(from, first, at), ...ellipseData(first.to, second, at)];
  }
  const { major, minor, angle } = axesOf(from, s);
  const degrees = Number(((-angle * 180) / Math.PI).toFixed(6));
  return [`A${figure(major)} ${figure(minor)} ${degrees} 0 ${turnsLeft(from, s) ? 0 : 1} ${at(s.to)}`];
}

/** As XML takes it; control characters, which it does not, are left out. */
function escaped(text: string): string {
  return cleanText(text).replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c] as string);
}
