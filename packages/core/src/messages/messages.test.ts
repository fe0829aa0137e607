import { describe, expect, it } from 'vitest';
import { findingWords } from '../proof/index.ts';
import { inWords, length, english as ofCore, SaidError, say, sayings, type Texts } from './index.ts';

const english = { ...ofCore, findings: findingWords };
const found = sayings('findings', findingWords);

describe('a message', () => {
  const told = found.open('Piece 1', length(0.4));

  it('holds its code and what fills it beside its English', () => {
    expect(told).toEqual({
      message: 'Piece 1 is not closed: its ends are 0.40 mm apart.',
      said: { code: 'findings.open', parameters: ['Piece 1', { mm: 0.4 }] },
    });
  });

  it('is told again in another unit', () => {
    expect(inWords(told.said, english, (mm) => `${(mm / 25.4).toFixed(3)} in`)).toBe('Piece 1 is not closed: its ends are 0.016 in apart.');
  });

  it('is told in another language that has the same texts', () => {
    const german: Texts & { findings: typeof findingWords } = {
      ...english,
      findings: { ...findingWords, open: (name, gap) => `${name} ist nicht geschlossen: ${gap} fehlen.` },
    };
    expect(inWords(told.said, german)).toBe('Piece 1 ist nicht geschlossen: 0.40 mm fehlen.');
  });

  it('outlasts being sent from a worker', () => {
    expect(inWords(structuredClone(told.said), english)).toBe(told.message);
  });

  it('is what an error of a person’s making says', () => {
    expect(new SaidError(say.job.markGone())).toMatchObject({ message: 'This mark is no longer there.', said: { code: 'job.markGone' } });
  });

  it('says thousandths where a length is small', () => {
    expect(found.sliver('Piece 2', length(0.0421)).message).toBe('Piece 2 is a sliver about 0.042 mm wide.');
  });

  it('counts in the singular and the plural', () => {
    expect(found.crossesItself('A', 1).message).toBe('A crosses itself at one place.');
    expect(found.thinWeb('A', length(0.5), length(1), 2).message).toBe(
      'A is 0.50 mm at its thinnest, and thin at one more place; the minimum is 1 mm.',
    );
    expect(found.largerThanStock('A, B, C, …', 4, length(300), length(200)).message).toBe(
      '4 pieces (A, B, C, …) are larger than the stock of 300 mm x 200 mm.',
    );
  });

  it('with a code that there is not is a bug', () => {
    expect(() => inWords({ code: 'findings.nothing', parameters: [] }, english)).toThrow(RangeError);
  });
});
