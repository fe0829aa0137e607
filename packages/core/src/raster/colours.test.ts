/** Colours: CIELAB against culori, the palette and labels of drawn pictures, borders as a planar map. */
import { converter, differenceEuclidean, parse } from 'culori';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  borderChains,
  type ColourPicture,
  colourLabels,
  coloursIn,
  hexOf,
  labDistance,
  labOf,
  type Rgb,
  rgbOfHex,
  withoutSpecks,
} from './index.ts';

const rgb = fc.tuple(fc.nat(255), fc.nat(255), fc.nat(255)) as fc.Arbitrary<Rgb>;

describe('CIELAB', () => {
  const theirs = converter('lab65');
  it('is what culori gives for D65, within a hundredth', () => {
    fc.assert(
      fc.property(rgb, (colour) => {
        const other = theirs(parse(hexOf(colour)));
        const [l, a, b] = labOf(colour);
        expect(Math.hypot(l - (other?.l ?? 0), a - (other?.a ?? 0), b - (other?.b ?? 0))).toBeLessThan(0.02);
      }),
    );
  });
  it('gives the distances that culori gives', () => {
    const apart = differenceEuclidean('lab65');
    fc.assert(
      fc.property(rgb, rgb, (one, other) => {
        expect(labDistance(labOf(one), labOf(other))).toBeCloseTo(apart(hexOf(one), hexOf(other)), 1);
      }),
    );
  });
  it('has white at 100, 0, 0 and black at 0, 0, 0', () => {
    for (const [colour, lightness] of [
      [[255, 255, 255], 100],
      [[0, 0, 0], 0],
    ] as const) {
      const [l, a, b] = labOf(colour);
      expect(l).toBeCloseTo(lightness, 3);
      expect(Math.hypot(a, b)).toBeLessThan(0.02);
    }
  });
});

describe('hexadecimal colours', () => {
  it('come back as they went', () => {
    fc.assert(
      fc.property(rgb, (colour) => {
        expect(rgbOfHex(hexOf(colour))).toEqual(colour);
      }),
    );
  });
  it.each(['red', '#12', '#gggggg', '', '1234567'])('%j is none', (word) => expect(rgbOfHex(word)).toBeNull());
});

/** Stripes of 20 px, each a colour, softened over `soft` pixels where they meet. */
function stripes(colours: readonly Rgb[], soft: number): ColourPicture {
  const [width, height] = [20 * colours.length, 30];
  const data = new Uint8Array(3 * width * height);
  for (let x = 0; x < width; x++) {
    const [k, off] = [Math.floor(x / 20), (x % 20) + 0.5];
    const [here, other, share] =
      off < soft && k > 0
        ? [colours[k], colours[k - 1], 0.5 - off / (2 * soft)]
        : 20 - off < soft && k < colours.length - 1
          ? [colours[k], colours[k + 1], 0.5 - (20 - off) / (2 * soft)]
          : [colours[k], colours[k], 0];
    for (let y = 0; y < height; y++)
      for (let c = 0; c < 3; c++)
        data[3 * (y * width + x) + c] = Math.round((here as Rgb)[c] as number) * (1 - share) + ((other as Rgb)[c] as number) * share;
  }
  return { width, height, data };
}

const labelled = (picture: ColourPicture, palette: readonly Rgb[]): Uint8Array => {
  const steps = colourLabels(picture, palette);
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value.labels;
};

describe('the colours of a picture', () => {
  const colours: Rgb[] = [[250, 248, 240], [180, 50, 40], [40, 60, 120], [250, 150, 145]]; // biome-ignore format: one line
  it('are found, each once', () => {
    const found = coloursIn(stripes(colours, 3)).map(({ rgb: found }) => found);
    expect(found).toHaveLength(4);
    for (const colour of colours) expect(Math.min(...found.map((f) => labDistance(labOf(f), labOf(colour))))).toBeLessThan(2);
  });
  it('are told apart pixel by pixel', () => {
    const picture = stripes(colours, 3);
    const labels = labelled(picture, colours);
    for (let x = 0; x < picture.width; x++) expect(labels[picture.width * 5 + x]).toBe(Math.floor(x / 20));
  });
  it('do not include the mixture along a border that looks like a third', () => {
    // White runs into red over six pixels; halfway lies a rose that is in the palette.
    const picture = stripes([colours[0] as Rgb, colours[1] as Rgb], 4);
    const labels = labelled(picture, [colours[0] as Rgb, colours[1] as Rgb, [215, 149, 140]]);
    expect(labels.includes(2)).toBe(false);
  });
  it('refuses more colours than it can tell', () => {
    expect(() =>
      labelled(
        stripes(colours, 2),
        Array.from({ length: 17 }, () => [0, 0, 0] as const),
      ),
    ).toThrow(RangeError);
  });
});

describe('borders between labels', () => {
  const [width, height] = [7, 6];
  const field = fc.array(fc.nat(3), { minLength: width * height, maxLength: width * height });
  it('hold every crack between two labels once', () => {
    fc.assert(
      fc.property(field, (list) => {
        const labels = Uint8Array.from(list);
        const at = (x: number, y: number) => (x < 0 || y < 0 || x >= width || y >= height ? 0 : (labels[y * width + x] as number));
        let cracks = 0;
        for (let y = 0; y <= height; y++)
          for (let x = 0; x <= width; x++)
            cracks += Number(at(x - 1, y) !== at(x, y)) * Number(y < height) + Number(at(x, y - 1) !== at(x, y)) * Number(x < width);
        const chains = borderChains(labels, width, height);
        const places = chains.flatMap(({ middles }) =>
          Array.from({ length: middles.length / 2 }, (_, k) => `${middles[2 * k]} ${middles[2 * k + 1]}`),
        );
        expect(places).toHaveLength(cracks);
        expect(new Set(places).size).toBe(cracks);
      }),
    );
  });
  it('keep one label to the left and one to the right all along', () => {
    fc.assert(
      fc.property(field, (list) => {
        const labels = Uint8Array.from(list);
        for (const { sides } of borderChains(labels, width, height)) {
          const of = (p: number) => (p < 0 ? 0 : labels[p]);
          for (let k = 0; k < sides.length; k += 2) {
            expect(of(sides[k] as number)).toBe(of(sides[0] as number));
            expect(of(sides[k + 1] as number)).toBe(of(sides[1] as number));
          }
        }
      }),
    );
  });
  it('lose specks to what surrounds them', () => {
    const labels = new Uint8Array(100).fill(1);
    labels[44] = 2;
    labels[45] = 2;
    expect(withoutSpecks(labels, 10, 3)).toBe(1);
    expect(new Set(labels)).toEqual(new Set([1]));
    labels[44] = 2;
    expect(withoutSpecks(labels, 10, 1)).toBe(0);
  });
});
