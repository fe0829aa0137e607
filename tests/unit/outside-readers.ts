/**
 * In: files that Nuvet wrote. Out: what readers from elsewhere see in them: ezdxf (Debian's python3-ezdxf, strict and
 * with its audit), dxf-parser (npm), and svg-path-properties with @xmldom/xmldom (npm).
 */
import { execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { type Box, boxAround } from '@nuvet/core/plane';
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
  return JSON.parse(execFileSync('/usr/bin/python3', [script, ...files], { encoding: 'utf8', maxBuffer: 1 << 28 }));
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
  paths: { d: string; rule: string | null; length: number; box: Box }[];
}

/** What an XML parser and a path reader see; boxes from points every 0.02 mm. */
/** The box round places a fiftieth of a millimetre apart: where it is asked for, because walking takes long. */
function walkedBox(path: InstanceType<typeof svgPathProperties>): Box {
  const length = path.getTotalLength();
  return boxAround(
    (function* () {
      for (let s = 0; s <= length; s += 0.02) yield path.getPointAtLength(s);
    })(),
  ) as Box;
}

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
      const rule = path.getAttribute('fill-rule');
      let known: Box | null = null;
      return {
        d,
        rule,
        get length() {
          return properties.getTotalLength();
        },
        get box() {
          known ??= walkedBox(properties);
          return known;
        },
      };
    }),
  };
}
