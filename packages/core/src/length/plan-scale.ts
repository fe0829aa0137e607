/**
 * In: a drawing scale as people state it: "1:76", "1 in to the foot", "1/4 in = 1 ft". Out: how many times as large
 * the real thing is.
 */

import { type Message, say } from '../messages/index.ts';
import { parseLength } from './parse.ts';

export type ParsedPlanScale = { readonly ok: true; readonly factor: number } | ({ readonly ok: false } & Message);

const refusal = { ok: false, ...say.lengths.scaleExamples() } as const;
const parting = /\s*(?:=|\bto\b|\bper\b|\bon\b)\s*/i;
const singular: Readonly<Record<string, string>> = {
  foot: '1 ft',
  inch: '1 in',
  metre: '1 m',
  meter: '1 m',
  centimetre: '1 cm',
  millimetre: '1 mm',
  yard: '3 ft',
};

/** Refuses what is no scale, and scales outside 1:100000 to 100000:1. */
export function parsePlanScale(text: string): ParsedPlanScale {
  const typed = text.trim();
  const ratio = /^([\d.,]+)\s*:\s*([\d.,]+)$/.exec(typed);
  const number = (word: string) => Number(word.replace(',', '.'));
  const parts = ratio ? null : typed.split(parting);
  const factor = ratio
    ? number(ratio[2] as string) / number(ratio[1] as string)
    : parts?.length === 2
      ? between(parts[0] as string, parts[1] as string)
      : Number.NaN;
  return factor > 1e-5 && factor < 1e5 ? { ok: true, factor } : refusal;
}

function between(drawn: string, real: string): number {
  const [a, b] = [drawn, real].map((word) => {
    const plain = word
      .replace(/^(?:the|a|an|one)\s+/i, '')
      .trim()
      .toLowerCase();
    const parsed = parseLength(singular[plain] ?? plain, 'mm');
    return parsed.ok ? parsed.mm : Number.NaN;
  }) as [number, number];
  return b / a;
}
