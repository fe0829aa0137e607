/**
 * In: an SVG file's text. Out: its elements as a tree, with whatever prefix they are written; entities that the file defines itself are read, those
 * that lie elsewhere are left aside. Rests on: XML 1.0 and namespaces in XML (W3C).
 */
import { SaxesParser } from 'saxes';
import { english, say } from '../messages/index.ts';
import { type Asides, DrawingError } from './drawing.ts';

export interface SvgElement {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: SvgElement[];
  readonly parent: SvgElement | null;
  /** What stands in it as text, of style sheets only. */
  text: string;
}

const svgNamespace = 'http://www.w3.org/2000/svg';
/** Deeper than any program nests; a reader's own steps would run out soon after. */
const deepest = 1000;
export const maxElements = 500_000;
const charactersAStep = 400_000;
/** An entity stands for no more characters than this, and all of them together for no more than so many. */
const longestEntity = 20_000;
const longestEntities = 200_000;

/** Yields the share read; gives the root. @throws DrawingError where it is no SVG, or holds more than a job can */
export function* svgDocument(text: string, asides: Asides): Generator<number, SvgElement> {
  const stack: SvgElement[] = [element('', {}, null)];
  /** Prefixes of each element that mean SVG; the first is for names without one. */
  const prefixes: ReadonlyMap<string, boolean>[] = [new Map([['', true]])];
  let elements = 0;
  let fault: string | null = null;
  const parser = new SaxesParser({ xmlns: false });
  parser.on('opentag', ({ name, attributes }) => {
    const own = attributes as Record<string, string>;
    const known = withPrefixes(prefixes.at(-1) as ReadonlyMap<string, boolean>, own);
    const [prefix, local] = name.includes(':') ? (name.split(':', 2) as [string, string]) : ['', name];
    // A prefix that is not declared is taken as it is meant.
    const isSvg = known.get(prefix) ?? prefix === 'svg';
    const parent = stack.at(-1) as SvgElement;
    const made = element(isSvg ? local : `other:${local}`, localAttributes(own), parent);
    parent.children.push(made);
    if (++elements > maxElements) throw new DrawingError('too-many', say.files.svgTooMany(maxElements.toLocaleString('en')));
    if (stack.length > deepest) throw new DrawingError('too-many', say.files.svgTooDeep(deepest.toLocaleString('en')));
    stack.push(made);
    prefixes.push(known);
    if (Object.keys(own).some((key) => /^on[a-z]+$/.test(key))) asides.leave('scripts', { isSeen: false });
  });
  parser.on('closetag', () => {
    stack.pop();
    prefixes.pop();
  });
  const take = (words: string): void => {
    const at = stack.at(-1) as SvgElement;
    if (at.name === 'style') at.text += words;
  };
  parser.on('text', take);
  parser.on('cdata', take);
  parser.on('doctype', (doctype) => Object.assign(parser.ENTITIES, entitiesIn(doctype, asides)));
  parser.on('error', (error) => {
    // An entity that cannot be read is left as it stands.
    if (!/entity/i.test(error.message)) fault ??= error.message;
  });
  for (let at = 0; at < text.length; at += charactersAStep) {
    parser.write(text.slice(at, at + charactersAStep));
    yield at / text.length;
  }
  parser.close();
  const root = (stack[0] as SvgElement).children.find((e) => e.name === 'svg');
  if (!root) throw new DrawingError('not-readable', say.files.noSvg());
  if (fault) asides.leave(english.files.afterFault);
  return root;
}

const element = (name: string, attributes: SvgElement['attributes'], parent: SvgElement | null): SvgElement => ({ name, attributes, children: [], parent, text: '' }); // biome-ignore format: one line

function withPrefixes(known: ReadonlyMap<string, boolean>, attributes: Readonly<Record<string, string>>): ReadonlyMap<string, boolean> {
  const declared = Object.entries(attributes).filter(([name]) => name === 'xmlns' || name.startsWith('xmlns:'));
  if (declared.length === 0) return known;
  return new Map([...known, ...declared.map(([name, uri]) => [name === 'xmlns' ? '' : name.slice(6), uri === svgNamespace || uri === ''] as const)]); // biome-ignore format: one line
}

/** By their names without a prefix, those that have none first: of links the one that SVG 2 has. */
function localAttributes(attributes: Readonly<Record<string, string>>): Record<string, string> {
  const made: Record<string, string> = Object.create(null);
  for (const [name, value] of Object.entries(attributes)) if (!name.includes(':')) made[name] = value;
  for (const [name, value] of Object.entries(attributes)) if (/^[\w.-]+:href$/.test(name)) made.href ??= value;
  return made;
}

/** What the file defines within itself, each entity that an entity stands for put in its place. */
function entitiesIn(doctype: string, asides: Asides): Record<string, string> {
  const defined = new Map<string, string>();
  for (const [, name, value, quoted] of doctype.matchAll(/<!ENTITY\s+([\w:.-]+)\s+(?:"([^"]*)"|'([^']*)')\s*>/g))
    if (!defined.has(name as string)) defined.set(name as string, value ?? quoted ?? '');
  for (const [, name] of doctype.matchAll(/<!ENTITY\s+(%?\s*[\w:.-]+)\s+(?:SYSTEM|PUBLIC)\b/g)) asides.leave(english.files.entityElsewhere(name as string)); // biome-ignore format: one line
  const made: Record<string, string> = {};
  let length = 0;
  for (const name of defined.keys()) {
    const value = expanded(name, defined, []);
    length += value?.length ?? 0;
    if (value === null || length > longestEntities) asides.leave(english.files.entityTooLong(name));
    else if (/[<]/.test(value)) asides.leave(english.files.entityOfElements(name));
    else made[name] = value;
  }
  return made;
}

/** Null where it leads back to itself, or grows too long. */
function expanded(name: string, defined: ReadonlyMap<string, string>, within: readonly string[]): string | null {
  if (within.includes(name) || within.length > 20) return null;
  let made = '';
  for (const part of (defined.get(name) ?? '').split(/(&[\w:.-]+;)/)) {
    const inner = /^&([\w:.-]+);$/.exec(part)?.[1];
    const value = inner !== undefined && defined.has(inner) ? expanded(inner, defined, [...within, name]) : part;
    if (value === null || made.length + value.length > longestEntity) return null;
    made += value;
  }
  return made;
}
