/// <reference path="./css-tree.d.ts" />
/**
 * In: the elements of an SVG drawing. Out: the style of each: presentation attributes, style sheets by specificity and order, its own style, and what
 * it inherits. Rests on: CSS Cascading and Inheritance and Selectors (W3C), css-tree and css-select.
 */
import { compile } from 'css-select';
import type { CssNode } from 'css-tree';
import generate from 'css-tree/generator';
import parse from 'css-tree/parser';
import walk from 'css-tree/walker';
import { english, say } from '../messages/index.ts';
import { type Asides, DrawingError } from './drawing.ts';
import type { SvgElement } from './svg-document.ts';

/** Values by property, as they are written. */
export type Style = Readonly<Record<string, string>>;

/** What is drawn rests on these; the value is the initial one. Those that are inherited, and those that are not. */
const inherited: Style = {
  visibility: 'visible', fill: 'black', stroke: 'none', 'stroke-width': '1', 'stroke-dasharray': 'none', 'stroke-linecap': 'butt', 'stroke-linejoin': 'miter', 'stroke-miterlimit': '4', 'fill-rule': 'nonzero', 'clip-rule': 'nonzero', 'font-size': 'medium', color: 'black', 'fill-opacity': '1', 'stroke-opacity': '1', 'marker-start': 'none', 'marker-mid': 'none', 'marker-end': 'none',
}; // biome-ignore format: one line
const own: Style = {
  display: 'inline', opacity: '1', 'clip-path': 'none', mask: 'none', transform: 'none', 'transform-origin': '', 'vector-effect': 'none', overflow: '', x: '', y: '', width: '', height: '', rx: '', ry: '', cx: '', cy: '', r: '', d: '',
}; // biome-ignore format: one line
const properties = new Set([...Object.keys(inherited), ...Object.keys(own)]);

/** Attributes that say what a property would: those of places and sizes are read where shapes are. */
const presentation = new Set([...Object.keys(inherited), 'display', 'opacity', 'clip-path', 'mask', 'vector-effect', 'overflow']);

export const rootStyle: Style = { ...own, ...inherited };

/** What an element has to be called, or to have, at least. */
interface Key {
  readonly kind: 'id' | 'class' | 'name';
  readonly value: string;
}

interface Rule {
  readonly matches: (element: SvgElement) => boolean;
  readonly specificity: number;
  readonly order: number;
  readonly declarations: readonly Declaration[];
}

interface Declaration {
  readonly property: string;
  readonly value: string;
  readonly isImportant: boolean;
}

const longestSheet = 2_000_000;
const mostRules = 20_000;
/** Looks at whether a rule holds for an element. */
const mostMatches = 2_000_000;

/** The style sheets of a drawing. */
export class SvgStyles {
  private count = 0;
  /** By what they ask for at least. */
  private readonly rules = {
    id: new Map<string, Rule[]>(),
    class: new Map<string, Rule[]>(),
    name: new Map<string, Rule[]>(),
    any: [] as Rule[],
  };
  private matched = 0;

  constructor(
    root: SvgElement,
    private readonly asides: Asides,
  ) {
    const visit = (element: SvgElement): void => {
      const isCss = !element.attributes.type || /^text\/css$/i.test(element.attributes.type);
      if (element.name === 'style' && isCss && isForScreen(element.attributes.media ?? '')) this.take(element.text);
      element.children.forEach(visit);
    };
    visit(root);
  }

  private take(text: string): void {
    if (text.length > longestSheet) throw new DrawingError('too-large', say.files.styleTooLong());
    const tree = parse(text, {
      parseValue: false,
      parseCustomProperty: false,
      onParseError: () => this.asides.leave(english.files.styleUnread),
    });
    walk(tree, {
      enter: (node: CssNode) => {
        if (node.type === 'Atrule') {
          if (node.name === 'import') this.asides.leave(english.files.styleElsewhere);
          const isOpen = node.name === 'media' && isForScreen(node.prelude ? generate(node.prelude) : '');
          return isOpen || node.name === 'supports' || node.name === 'layer' ? undefined : walk.skip;
        }
        if (node.type !== 'Rule') return undefined;
        if (node.prelude.type === 'SelectorList')
          this.takeRule(node.prelude.children.toArray(), declarationsIn(generate(node.block).slice(1, -1))); // biome-ignore format: one line
        else this.asides.leave(english.files.styleUnread);
        return walk.skip;
      },
    });
  }

  private takeRule(selectors: readonly CssNode[], declarations: readonly Declaration[]): void {
    if (!declarations.some(({ property }) => properties.has(property))) return;
    for (const selector of selectors) {
      if (++this.count > mostRules) throw new DrawingError('too-many', say.files.styleTooLong());
      try {
        const matches = compile<SvgElement, SvgElement>(generate(selector), { xmlMode: true, adapter });
        this.keep({ matches, specificity: specificityOf(selector), order: this.count, declarations }, keyOf(selector));
      } catch {
        this.asides.leave(english.files.styleUnread);
      }
    }
  }

  /** By the style of what an element is drawn in: what is linked to often is worked out once. */
  private readonly known = new WeakMap<Style, WeakMap<SvgElement, Style>>();

  /** @param parent the style of the element that it is drawn in */
  of(element: SvgElement, parent: Style): Style {
    const within = this.known.get(parent) ?? new WeakMap<SvgElement, Style>();
    this.known.set(parent, within);
    const style = within.get(element) ?? this.cascaded(element, parent);
    within.set(element, style);
    return style;
  }

  private cascaded(element: SvgElement, parent: Style): Style {
    const { attributes } = element;
    const declared: Declaration[] = [];
    for (const name in attributes)
      if (presentation.has(name)) declared.push({ property: name, value: attributes[name] as string, isImportant: false });
    const ofRules = this.count > 0 ? this.holdingFor(element).flatMap(({ declarations }) => declarations) : [];
    const ofElement = attributes.style === undefined ? [] : declarationsIn(attributes.style);
    for (const isImportant of [false, true])
      for (const list of [ofRules, ofElement]) for (const one of list) if (one.isImportant === isImportant) declared.push(one);
    const plain = this.plainWithin(parent);
    return declared.length === 0 ? plain : withDeclared(plain, parent, declared);
  }

  private readonly plain = new WeakMap<Style, Style>();

  /** The style of an element that says nothing itself. */
  private plainWithin(parent: Style): Style {
    let style = this.plain.get(parent);
    if (!style) {
      const made: Record<string, string> = { ...rootStyle };
      for (const property in inherited) made[property] = parent[property] as string;
      style = made;
      this.plain.set(parent, style);
    }
    return style;
  }

  private keep(rule: Rule, key: Key | null): void {
    if (!key) {
      this.rules.any.push(rule);
      return;
    }
    const alike = this.rules[key.kind].get(key.value) ?? [];
    alike.push(rule);
    this.rules[key.kind].set(key.value, alike);
  }

  private holdingFor(element: SvgElement): Rule[] {
    const { id, class: classes } = element.attributes;
    const names = new Set(classes?.split(/\s+/) ?? []);
    const may = [
      ...this.rules.any,
      ...(this.rules.name.get(element.name) ?? []),
      ...(id === undefined ? [] : (this.rules.id.get(id) ?? [])),
      ...[...names].flatMap((one) => this.rules.class.get(one) ?? []),
    ];
    this.matched += may.length;
    if (this.matched > mostMatches) throw new DrawingError('too-many', say.files.styleTooLong());
    return may.filter(({ matches }) => matches(element)).sort((p, q) => p.specificity - q.specificity || p.order - q.order);
  }
}

function withDeclared(plain: Style, parent: Style, declared: readonly Declaration[]): Style {
  const style: Record<string, string> = { ...plain };
  for (const { property, value } of declared) {
    if (!properties.has(property)) continue;
    const word = value.trim().toLowerCase();
    if (word === 'inherit' || (word === 'unset' && property in inherited)) style[property] = parent[property] ?? '';
    else if (word === 'initial' || word === 'unset' || word === 'revert') style[property] = rootStyle[property] as string;
    // A variable stands for what is not known here.
    else if (!word.includes('var(')) style[property] = value.trim();
  }
  return style;
}

/** A style sheet for print only is not what is seen. */
const isForScreen = (media: string): boolean => media.trim() === '' || media.split(',').some((one) => /\b(all|screen)\b/i.test(one) || !/\b(print|speech)\b/i.test(one)); // biome-ignore format: one line

function declarationsIn(text: string): Declaration[] {
  const found: Declaration[] = [];
  if (text.length > longestSheet) return found;
  walk(parse(text, { context: 'declarationList', parseValue: false }), {
    visit: 'Declaration',
    enter: ({ property, value, important }) => {
      found.push({ property: property.toLowerCase(), value: generate(value), isImportant: important !== false });
    },
  });
  return found;
}

const isElement = (node: SvgElement): node is SvgElement => node.name !== '';
const adapter = {
  isTag: isElement,
  getAttributeValue: (element: SvgElement, name: string) => element.attributes[name],
  getChildren: (node: SvgElement) => node.children,
  getName: (element: SvgElement) => element.name,
  getParent: (node: SvgElement) => (node.parent?.name === '' ? null : node.parent),
  getSiblings: (node: SvgElement) => (node.parent && node.parent.name !== '' ? node.parent.children : [node]),
  getText: (node: SvgElement) => node.text,
  hasAttrib: (element: SvgElement, name: string) => name in element.attributes,
  removeSubsets: (nodes: SvgElement[]) => nodes,
};

const classWeight = 1e3;
const partWeights: Readonly<Record<string, number>> = { IdSelector: 1e6, ClassSelector: classWeight, AttributeSelector: classWeight, PseudoElementSelector: 1 }; // biome-ignore format: one line

/** Ids, then classes, attributes and pseudo-classes, then names: as digits of a number to the base of a thousand. */
function specificityOf(selector: CssNode): number {
  const largest = (node: CssNode): number => {
    let most = 0;
    walk(node, {
      visit: 'Selector',
      enter: (inner: CssNode) => {
        most = Math.max(most, specificityOf(inner));
      },
    });
    return most;
  };
  const weightOf = (part: CssNode): number => {
    if (part.type === 'TypeSelector') return part.name === '*' ? 0 : 1;
    if (part.type !== 'PseudoClassSelector') return partWeights[part.type] ?? 0;
    if (part.name === 'where') return 0;
    const ofList = ['not', 'is', 'has', 'matches'].includes(part.name) && part.children;
    return ofList ? ofList.toArray().reduce((sum, list) => sum + largest(list), 0) : classWeight;
  };
  return selector.type === 'Selector' ? selector.children.toArray().reduce((sum, part) => sum + weightOf(part), 0) : 0;
}

/** What its last part asks for at least, so that most elements are passed over without a look. */
function keyOf(selector: CssNode): Key | null {
  if (selector.type !== 'Selector') return null;
  const parts = selector.children.toArray();
  const last = parts.slice(parts.findLastIndex((part) => part.type === 'Combinator') + 1);
  for (const part of last) if (part.type === 'IdSelector') return { kind: 'id', value: part.name };
  for (const part of last) if (part.type === 'ClassSelector') return { kind: 'class', value: part.name };
  for (const part of last) if (part.type === 'TypeSelector' && part.name !== '*') return { kind: 'name', value: part.name };
  return null;
}
