/**
 * In: a length as a person types it. Out: millimetres, or a plain message with the place of the fault.
 * Rests on: recursive descent over numbers, fractions, unit marks and + - * / ( ).
 * 1 in = 25.4 mm exactly (international yard and pound agreement of 1959).
 */

import { type Message, SaidError, say } from '../messages/index.ts';
import { isUnit, millimetresPer, type Unit, unitFromWord } from './unit.ts';

export type ParsedLength =
  | { ok: true; mm: number }
  /** `at` and `end` are character positions in the text as typed, `end` exclusive. */
  | ({ ok: false; at: number; end: number } & Message);

/** What a length may be: any value, or only more than zero. */
export type LengthRange = 'any' | 'positive' | 'from zero';

/** A value with its dimension: 0 for a bare number, 1 for a length in mm. */
interface Quantity {
  value: number;
  dimension: 0 | 1;
}

class Fault extends SaidError {
  constructor(
    message: Message,
    readonly at: number,
    readonly end: number,
  ) {
    super(message);
  }
}

const vulgarFractions: Record<string, string> = {
  '½': '1/2', '¼': '1/4', '¾': '3/4', '⅛': '1/8', '⅜': '3/8', '⅝': '5/8', '⅞': '7/8', '⅓': '1/3', '⅔': '2/3',
}; // biome-ignore format: a table reads best as one

type Token =
  | { kind: 'number'; value: number; whole: boolean; at: number; end: number }
  | { kind: 'unit'; unit: Unit; at: number; end: number }
  | { kind: 'sign'; sign: string; at: number; end: number; tight: boolean };

function readToken(text: string, at: number): Token {
  const rest = text.slice(at);
  const ch = text.charAt(at);
  const vulgar = vulgarFractions[ch];
  if (vulgar) {
    const [top, bottom] = vulgar.split('/').map(Number) as [number, number];
    return { kind: 'number', value: top / bottom, whole: false, at, end: at + 1 };
  }
  const grouped = /^\d+[.,]\d+[.,]\d*/.exec(rest);
  if (grouped) {
    throw new Fault(say.lengths.noThousandsMarks(), at, at + grouped[0].length);
  }
  const fraction = /^(\d+)\/(\d+)(?![\d.,])/.exec(rest);
  if (fraction) {
    const end = at + fraction[0].length;
    if (Number(fraction[2]) === 0) throw new Fault(say.lengths.dividedByZero(), at, end);
    return { kind: 'number', value: Number(fraction[1]) / Number(fraction[2]), whole: false, at, end };
  }
  const decimal = /^(\d+([.,]\d*)?|[.,]\d+)/.exec(rest);
  if (decimal) {
    const end = at + decimal[0].length;
    return { kind: 'number', value: Number(decimal[0].replace(',', '.')), whole: !decimal[2], at, end };
  }
  const feetMark = /^(''|[′’‘'″”“"])/.exec(rest);
  if (feetMark) {
    const mark = feetMark[0];
    const unit = /^[′’‘']$/.test(mark) ? 'ft' : 'in';
    return { kind: 'unit', unit, at, end: at + mark.length };
  }
  const word = /^[a-zµμ]+\.?/i.exec(rest);
  if (word) {
    const end = at + word[0].length;
    const unit = unitFromWord(word[0]);
    if (unit) return { kind: 'unit', unit, at, end };
    throw new Fault(say.lengths.unknownUnit(word[0]), at, end);
  }
  const sign = { '×': '*', '·': '*', '÷': '/', '−': '-', '–': '-' }[ch] ?? ch;
  if ('+-*/()'.includes(sign)) {
    const tight = /\S/.test(text.charAt(at - 1)) && /\S/.test(text.charAt(at + 1));
    return { kind: 'sign', sign, at, end: at + 1, tight };
  }
  throw new Fault(say.lengths.noMeaning(ch), at, at + 1);
}

function readTokens(text: string): Token[] {
  const tokens: Token[] = [];
  for (let at = 0; at < text.length; ) {
    if (/\s/.test(text.charAt(at))) {
      at++;
      continue;
    }
    const token = readToken(text, at);
    tokens.push(token);
    at = token.end;
  }
  return tokens;
}

class Reader {
  private next = 0;
  constructor(
    private readonly tokens: Token[],
    private readonly text: string,
    private readonly unit: Unit,
  ) {}

  whole(): number {
    const sum = this.sum();
    const left = this.tokens[this.next];
    if (left) throw new Fault(say.lengths.doesNotBelongHere(this.text.slice(left.at)), left.at, this.text.length);
    return this.inMillimetres(sum);
  }

  private inMillimetres(q: Quantity): number {
    return q.dimension === 1 ? q.value : q.value * millimetresPer(this.unit);
  }

  private takeSign(...signs: string[]): (Token & { kind: 'sign' }) | null {
    const token = this.tokens[this.next];
    if (token?.kind !== 'sign' || !signs.includes(token.sign)) return null;
    this.next++;
    return token;
  }

  private sum(): Quantity {
    let left = this.product();
    for (let sign = this.takeSign('+', '-'); sign; sign = this.takeSign('+', '-')) {
      const right = this.product();
      const factor = sign.sign === '+' ? 1 : -1;
      left =
        left.dimension === right.dimension
          ? { value: left.value + factor * right.value, dimension: left.dimension }
          : { value: this.inMillimetres(left) + factor * this.inMillimetres(right), dimension: 1 };
    }
    return left;
  }

  private product(): Quantity {
    let left = this.factor();
    for (let sign = this.takeSign('*', '/'); sign; sign = this.takeSign('*', '/')) {
      const right = this.factor();
      if (sign.sign === '*') {
        if (left.dimension + right.dimension > 1) {
          throw new Fault(say.lengths.lengthTimesLength(), sign.at, sign.end);
        }
        left = { value: left.value * right.value, dimension: (left.dimension + right.dimension) as 0 | 1 };
      } else {
        if (right.value === 0) throw new Fault(say.lengths.dividedByZero(), sign.at, sign.end);
        if (right.dimension > left.dimension) {
          throw new Fault(say.lengths.numberByLength(), sign.at, sign.end);
        }
        left = { value: left.value / right.value, dimension: (left.dimension - right.dimension) as 0 | 1 };
      }
    }
    return left;
  }

  private factor(): Quantity {
    const minus = this.takeSign('-', '+');
    if (minus) {
      const q = this.factor();
      return minus.sign === '-' ? { ...q, value: -q.value } : q;
    }
    const open = this.takeSign('(');
    if (open) {
      const inner = this.sum();
      if (!this.takeSign(')')) throw new Fault(say.lengths.bracketOpen(), open.at, open.end);
      const after = this.tokens[this.next];
      if (after?.kind === 'unit' && inner.dimension === 0) {
        this.next++;
        return { value: inner.value * millimetresPer(after.unit), dimension: 1 };
      }
      return inner;
    }
    return this.compound();
  }

  /** A number, or numbers with falling units side by side: 4' 5 1/2", 4 ft 5.5 in, 5'-6". */
  private compound(): Quantity {
    let total = this.measured();
    let last = this.unitBefore();
    while (total.dimension === 1 && last) {
      const token = this.tokens[this.next];
      const dashed = token?.kind === 'sign' && token.sign === '-' && token.tight && last === 'ft';
      const number = this.tokens[this.next + (dashed ? 1 : 0)];
      if (number?.kind !== 'number' || (dashed && !this.isInchesAt(this.next + 1))) break;
      if (dashed) this.next++;
      const part = this.measured();
      const unit = this.unitBefore();
      if (!unit || millimetresPer(unit) >= millimetresPer(last)) {
        throw new Fault(
          unit ? say.lengths.smallerUnitFollows(last) : say.lengths.unitNeeded(),
          number.at,
          this.tokens[this.next - 1]?.end ?? number.end,
        );
      }
      total = { value: total.value + part.value, dimension: 1 };
      last = unit;
    }
    return total;
  }

  private isInchesAt(index: number): boolean {
    let k = index;
    while (this.tokens[k]?.kind === 'number') k++;
    const token = this.tokens[k];
    return token?.kind === 'unit' && token.unit === 'in';
  }

  private unitBefore(): Unit | null {
    const token = this.tokens[this.next - 1];
    return token?.kind === 'unit' ? token.unit : null;
  }

  /** One number, or a whole one with a fraction behind it, and the unit that follows. */
  private measured(): Quantity {
    const token = this.tokens[this.next];
    if (token?.kind !== 'number') {
      const end = this.text.length;
      throw token
        ? new Fault(say.lengths.numberMissingBefore(), token.at, token.end)
        : new Fault(say.lengths.numberMissingAtEnd(), Math.max(0, end - 1), end);
    }
    this.next++;
    let value = token.value;
    const fraction = this.tokens[this.next];
    if (token.whole && fraction?.kind === 'number' && !fraction.whole && fraction.value < 1) {
      value += fraction.value;
      this.next++;
    }
    const unit = this.tokens[this.next];
    if (unit?.kind !== 'unit') return { value, dimension: 0 };
    this.next++;
    return { value: value * millimetresPer(unit.unit), dimension: 1 };
  }
}

/**
 * Reads a typed length: feet, inches, fractions, decimals with point or comma, arithmetic with brackets.
 * @param text as typed, up to 200 characters
 * @param unit what a bare number is in
 * @param range `positive` refuses zero and less, `from zero` only less
 */
export function parseLength(text: string, unit: Unit = 'mm', range: LengthRange = 'any'): ParsedLength {
  const blank = text.trim() === '';
  if (blank) return { ok: false, ...say.lengths.typeALength(), at: 0, end: text.length };
  if (text.length > 200) return { ok: false, ...say.lengths.tooLong(), at: 200, end: text.length };
  if (!isUnit(unit)) throw new RangeError(`unknown unit ${unit}`);
  try {
    const mm = new Reader(readTokens(text), text, unit).whole();
    if (!Number.isFinite(mm) || Math.abs(mm) > 1e9) throw new Fault(say.lengths.tooLarge(), 0, text.length);
    if (range === 'positive' && mm <= 0) {
      throw new Fault(say.lengths.mustBePositive(), 0, text.length);
    }
    if (range === 'from zero' && mm < 0) throw new Fault(say.lengths.mustNotBeNegative(), 0, text.length);
    return { ok: true, mm };
  } catch (error) {
    if (error instanceof Fault) return { ok: false, message: error.message, said: error.said, at: error.at, end: error.end };
    throw error;
  }
}
