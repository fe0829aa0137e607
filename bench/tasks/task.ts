/** A maker's task, and what its outcome is held against: a file read by a reader of others, sizes, and the actions it took. */
import type { Point } from '@nuvet/core/plane';
import { pngOf, type Scan, type ScanSettings, type Scene, scanScene } from '@nuvet/truth';
import { type DxfSeen, dxfSeenByEzdxf } from '../../tests/unit/outside-readers.ts';
import type { Hand } from './hand.ts';

export interface Task {
  readonly name: string;
  /** Actions that the same took before. */
  readonly before: number | null;
  /** @returns how far the outcome is off, in words; throws where it does not work */
  run(hand: Hand): Promise<string>;
}

export const scan = (scene: Scene, settings: Partial<ScanSettings> = {}): Scan =>
  scanScene(scene, { dpi: 300, noise: 5, seed: 401, ...settings });
export const sizeOf = ({ min, max }: DxfSeen): [number, number] => [(max[0] ?? 0) - (min[0] ?? 0), (max[1] ?? 0) - (min[1] ?? 0)];
export const off = (is: number, wanted: number): string => `${is - wanted >= 0 ? '+' : ''}${(is - wanted).toFixed(3)}`;

export function read(file: string): DxfSeen {
  const [dxf] = dxfSeenByEzdxf(file);
  if (!dxf || dxf.errors.length > 0 || dxf.fixes.length > 0) throw new Error(`ezdxf: ${JSON.stringify(dxf?.errors)}`);
  return dxf;
}

export function isClosed(dxf: DxfSeen, count: number): void {
  const open = dxf.outlines.filter((o) => !o.closed).length;
  if (open > 0) throw new Error(`${open} outlines of the file are open`);
  if (dxf.outlines.length !== count) throw new Error(`${dxf.outlines.length} outlines in the file for ${count} wanted`);
}

export function near(is: number, wanted: number, within: number): void {
  if (!(Math.abs(is - wanted) <= within)) throw new Error(`${is.toFixed(3)} for ${wanted.toFixed(3)}`);
}

/** A scan dropped on the list of jobs; @param dpi that its file states, if any */
export async function brought(hand: Hand, name: string, of: Scan, dpi: number | null = 300): Promise<void> {
  await hand.open();
  await hand.drop(`${name}.png`, 'image/png', await pngOf(of.picture, dpi));
}

/** A scan without a size, dropped on the list of jobs and sized by two clicks and a length. */
export async function sized(hand: Hand, name: string, of: Scan, marks: readonly Point[], length: string, scale = ''): Promise<void> {
  await brought(hand, name, of, null);
  for (const place of marks) await hand.clickPicture(of.at(place));
  await hand.type('Its true length', length);
  if (scale) await hand.type('This plan is drawn at', scale);
}

export const finish = 'Finish: trace, prove, DXF';

export interface Size {
  readonly w: number;
  readonly h: number;
}

export function boxOf(points: readonly (readonly [number, number])[]): Size {
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  return { w: Math.max(...xs) - Math.min(...xs), h: Math.max(...ys) - Math.min(...ys) };
}
