/**
 * In: files that Nuvet wrote. Out: what readers from elsewhere see in them: ezdxf (Debian's python3-ezdxf, strict and
 * with its audit), dxf-parser (npm), and svg-path-properties with @xmldom/xmldom (npm).
 */
import { execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { DOMParser } from '@xmldom/xmldom';
import DxfParser, { type ILwpolylineEntity } from 'dxf-parser';
import { svgPathProperties } from 'svg-path-properties';

export interface DxfSeen {
  version: string;
  insunits: number;
  errors: string[];
  fixes: string[];
  layers: string[];
  min: [number, number];
  max: [number, number];
  outlines: { type: string; layer: string; closed: boolean; points: [number, number, number][]; along: [number, number][] }[];
}

/** What ezdxf sees; throws where it refuses a file. */
export function dxfSeenByEzdxf(...files: string[]): DxfSeen[] {
  const script = fileURLToPath(new URL('./read-dxf.py', import.meta.url));
  return JSON.parse(execFileSync('/usr/bin/python3', [script, ...files], { encoding: 'utf8' }));
}

export function polylinesSeenByDxfParser(text: string): ILwpolylineEntity[] {
  const seen = new DxfParser().parseSync(text);
  return (seen?.entities ?? []) as ILwpolylineEntity[];
}

export interface SvgSeen {
  widthMm: number;
  heightMm: number;
  viewBox: number[];
  groups: string[];
  paths: { d: string; rule: string | null; length: number; box: { minX: number; minY: number; maxX: number; maxY: number } }[];
}

/** What an XML parser and a path reader see; boxes from points every 0.02 mm. */
export function svgSeen(text: string): SvgSeen {
  const complaints: string[] = [];
  const root = new DOMParser({ onError: (level, message) => complaints.push(`${level}: ${message}`) }).parseFromString(
    text,
    'image/svg+xml',
  ).documentElement;
  if (!root || complaints.length > 0) throw new Error(`the SVG is not well formed: ${complaints.join(', ')}`);
  const inMm = (name: string) => Number(/^([\d.]+)mm$/.exec(root.getAttribute(name) ?? '')?.[1]);
  return {
    widthMm: inMm('width'),
    heightMm: inMm('height'),
    viewBox: (root.getAttribute('viewBox') ?? '').split(' ').map(Number),
    groups: Array.from(root.getElementsByTagName('g'), (g) => g.getAttribute('id') ?? ''),
    paths: Array.from(root.getElementsByTagName('path'), (path) => {
      const d = path.getAttribute('d') ?? '';
      const properties = new svgPathProperties(d);
      const length = properties.getTotalLength();
      const box = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };
      for (let s = 0; s <= length; s += 0.02) {
        const { x, y } = properties.getPointAtLength(s);
        box.minX = Math.min(box.minX, x);
        box.minY = Math.min(box.minY, y);
        box.maxX = Math.max(box.maxX, x);
        box.maxY = Math.max(box.maxY, y);
      }
      return { d, rule: path.getAttribute('fill-rule'), length, box };
    }),
  };
}
