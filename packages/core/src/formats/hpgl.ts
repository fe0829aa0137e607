/**
 * In: the ways of a knife in their order. Out: a plot file for it; and such a file read.
 * Rests on: Hewlett-Packard, "The HP-GL/2 and HP RTL Reference Guide": IN, PU, PD, PA, SP, VS, FS; a plotter unit is 0.025 mm.
 */

import type { Machine } from '../job/machine.ts';
import { type Purpose, purposeKinds, purposes } from '../job/purposes.ts';
import type { PowerSetting } from '../make/cutting.ts';
import { toMachine } from '../make/placement.ts';
import { english } from '../messages/index.ts';
import type { Box } from '../plane/box.ts';
import { chordsOf, type Path, transformedPath } from '../plane/path.ts';
import type { Point } from '../plane/point.ts';
import type { Toolpath } from './gcode.ts';

/** Of a plotter unit, mm. */
export const plotterUnitMm = 0.025;
/** The hardest that FS can say, by common practice grams. */
const maxForce = 200;

export interface PlotOptions {
  readonly machine: Machine;
  readonly box: Box;
  readonly powerSettingOf: (purpose: Purpose) => PowerSetting;
}

export function writeHpgl(toolpaths: readonly Toolpath[], { machine, box, powerSettingOf }: PlotOptions): string {
  const t = toMachine(box, machine);
  const at = ({ x, y }: Point): string => `${Math.round(x / plotterUnitMm)},${Math.round(y / plotterUnitMm)}`;
  const lines = ['IN;'];
  let pen = 0;
  for (const { purpose, path } of toolpaths) {
    const { power, speedMmPerMin, passes } = powerSettingOf(purpose);
    if (purposeKinds[purpose].pen !== pen) {
      pen = purposeKinds[purpose].pen;
      // Speeds are in centimetres a second.
      lines.push(`SP${pen};VS${Math.max(1, Math.round(speedMmPerMin / 600))};FS${Math.max(1, Math.round(power * maxForce))};`);
    }
    const [start, ...rest] = chordsOf(transformedPath(path, t), machine.toleranceMm);
    if (!start || rest.length === 0) continue;
    for (let pass = 0; pass < passes; pass++) lines.push(`PU${at(start)};PD${rest.map(at).join(',')};`);
  }
  lines.push('PU0,0;SP0;', '');
  return lines.join('\n');
}

export interface PlotRead {
  readonly toolpaths: readonly { readonly path: Path; readonly purpose: Purpose }[];
}

export class PlotError extends Error {
  readonly code = 'bad-plot';
}

/** @throws PlotError at a command that it does not know */
export function readHpgl(text: string): PlotRead {
  const toolpaths: { path: Path; purpose: Purpose }[] = [];
  let [at, isDown, pen]: [Point, boolean, number] = [{ x: 0, y: 0 }, false, 1];
  let points: Point[] = [];
  const close = (): void => {
    const [start, ...rest] = points;
    if (start && rest.length > 0) {
      const end = rest.at(-1) as Point;
      const purpose = purposes.find((p) => purposeKinds[p].pen === pen) ?? 'cut';
      toolpaths.push({
        path: {
          start,
          segments: rest.map((to) => ({ kind: 'line', to })),
          closed: rest.length > 2 && end.x === start.x && end.y === start.y,
        },
        purpose,
      });
    }
    points = [];
  };
  for (const command of text
    .split(/[;\n]+/)
    .map((c) => c.trim())
    .filter(Boolean)) {
    const [name, numbers] = [
      command.slice(0, 2).toUpperCase(),
      command
        .slice(2)
        .split(/[\s,]+/)
        .filter(Boolean)
        .map(Number),
    ];
    if (numbers.some((n) => !Number.isFinite(n))) throw new PlotError(english.files.notPlotter(command));
    if (name === 'PU' || name === 'PD') {
      if (name === 'PU') close();
      else if (!isDown) points = [at];
      isDown = name === 'PD';
    } else if (name === 'SP') {
      close();
      isDown = false;
      pen = numbers[0] ?? 0;
      continue;
    } else if (!['IN', 'PA', 'VS', 'FS'].includes(name)) throw new PlotError(english.files.unknownPlotter(command));
    if (!['PU', 'PD', 'PA'].includes(name)) continue;
    for (let k = 0; k + 1 < numbers.length; k += 2) {
      at = { x: (numbers[k] as number) * plotterUnitMm, y: (numbers[k + 1] as number) * plotterUnitMm };
      if (isDown) points.push(at);
    }
  }
  close();
  return { toolpaths };
}
