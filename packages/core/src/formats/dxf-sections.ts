/**
 * In: a DXF file's text. Out: its header, layers, blocks and entities, each as its group codes.
 * Rests on: the published DXF reference: sections, tables and group codes.
 */
import { say } from '../messages/index.ts';
import type { Point } from '../plane/point.ts';
import { DrawingError } from './drawing.ts';

const linesAStep = 60_000;

export type Group = readonly [code: number, value: string];

export interface Entity {
  readonly kind: string;
  readonly groups: Group[];
  /** Vertices of an old polyline. */
  readonly vertices: Group[][];
}

export interface Layer {
  /** What is off hides what lies on it; what is frozen hides what a block on it holds, too. */
  readonly isOff: boolean;
  readonly isFrozen: boolean;
  readonly lineType: string;
}

export interface Sections {
  readonly header: Map<string, string>;
  readonly layers: Map<string, Layer>;
  readonly blocks: Map<string, { readonly base: Point; readonly entities: Entity[] }>;
  readonly entities: Entity[];
}

export function* sectionsOf(text: string): Generator<number, Sections> {
  if (/^[^\n]{0,40}Binary DXF/.test(text)) throw new DrawingError('not-readable', say.files.binaryDxf());
  const sections: Sections = { header: new Map(), layers: new Map(), blocks: new Map(), entities: [] };
  const taker = new SectionTaker(sections);
  let [at, line] = [0, 0];
  const nextLine = (): string | null => {
    if (at >= text.length) return null;
    let end = text.indexOf('\n', at);
    if (end < 0) end = text.length;
    const found = text.slice(at, end).replace(/\r$/, '');
    at = end + 1;
    line++;
    return found;
  };
  for (let first = nextLine(); first !== null; first = nextLine()) {
    const value = nextLine();
    const code = Number(first);
    if (value === null) break;
    if (!Number.isInteger(code) || first.trim() === '') {
      throw new DrawingError('not-readable', say.files.damagedDxf(line - 1));
    }
    taker.take(code, value);
    if (line % linesAStep < 2) yield 0.8 * (at / text.length);
  }
  if (!taker.sawSection) throw new DrawingError('not-readable', say.files.noDxf());
  taker.finish();
  return sections;
}

interface LayerHead {
  name: string;
  flags: number;
  colour: number;
  lineType: string;
}

interface BlockHead {
  name: string;
  readonly base: { x: number; y: number };
  readonly entities: Entity[];
}

/** Sorts group codes into sections, entities and blocks. */
class SectionTaker {
  sawSection = false;
  private section = '';
  private variable = '';
  private entity: Entity | null = null;
  private polyline: Entity | null = null;
  private block: BlockHead | null = null;
  private isBlockHead = false;
  private layer: LayerHead | null = null;

  constructor(private readonly sections: Sections) {}

  take(code: number, value: string): void {
    const word = value.trim();
    if (code === 0) this.begin(word);
    else if (this.section === '?' && code === 2) this.section = word;
    else if (this.section === 'HEADER') this.takeVariable(code, word);
    else if (this.layer) this.takeLayer(this.layer, code, word);
    else if (this.isBlockHead && this.block) this.takeBlockHead(this.block, code, word);
    else if (this.entity) this.entity.groups.push([code, word]);
  }

  private takeVariable(code: number, word: string): void {
    if (code === 9) this.variable = word;
    else if (!this.sections.header.has(this.variable)) this.sections.header.set(this.variable, word);
  }

  private takeLayer(layer: LayerHead, code: number, word: string): void {
    if (code === 2) layer.name = word;
    if (code === 70) layer.flags = Number(word);
    if (code === 62) layer.colour = Number(word);
    if (code === 6) layer.lineType = word;
  }

  private takeBlockHead(block: BlockHead, code: number, word: string): void {
    if (code === 2) block.name = word;
    if (code === 10) block.base.x = Number(word);
    if (code === 20) block.base.y = Number(word);
  }

  private begin(word: string): void {
    this.endEntity();
    this.layer = null;
    if (word === 'SECTION') {
      this.section = '?';
      this.sawSection = true;
    } else if (word === 'ENDSEC') this.section = '';
    else if (this.section === 'TABLES' && word === 'LAYER') this.layer = { name: '', flags: 0, colour: 7, lineType: '' };
    else if (this.section === 'BLOCKS' && word === 'BLOCK') {
      this.block = { name: '', base: { x: 0, y: 0 }, entities: [] };
      this.isBlockHead = true;
    } else if (word === 'ENDBLK') {
      if (this.block) this.sections.blocks.set(this.block.name, this.block);
      this.block = null;
      this.isBlockHead = false;
    } else if (this.section === 'ENTITIES' || this.section === 'BLOCKS') {
      this.isBlockHead = false;
      this.entity = { kind: word, groups: [], vertices: [] };
    }
  }

  private endEntity(): void {
    if (this.layer)
      this.sections.layers.set(this.layer.name, {
        isOff: this.layer.colour < 0,
        isFrozen: (this.layer.flags & 1) === 1,
        lineType: this.layer.lineType,
      });
    const { entity } = this;
    this.entity = null;
    if (!entity) return;
    if (this.polyline && entity.kind === 'VERTEX') {
      this.polyline.vertices.push(entity.groups);
      return;
    }
    if (this.polyline) {
      this.keep(this.polyline);
      this.polyline = null;
      if (entity.kind === 'SEQEND') return;
    }
    if (entity.kind === 'POLYLINE') this.polyline = entity;
    else if (entity.kind !== 'SEQEND') this.keep(entity);
  }

  private keep(entity: Entity): void {
    if (this.section === 'BLOCKS') this.block?.entities.push(entity);
    else this.sections.entities.push(entity);
  }

  finish(): void {
    this.endEntity();
    if (this.polyline) this.keep(this.polyline);
  }
}

export const groupNumber = (groups: readonly Group[], code: number, otherwise: number): number => {
  const value = Number(groups.find(([c]) => c === code)?.[1] ?? otherwise);
  return Number.isFinite(value) ? value : otherwise;
};
export const numberOf = (entity: Entity, code: number, otherwise: number): number => groupNumber(entity.groups, code, otherwise);
export const textOf = (entity: Entity, code: number): string | undefined => entity.groups.find(([c]) => c === code)?.[1];
