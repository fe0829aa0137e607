/** Plot files read by Nuvet: what HP-GL/2 says of its commands, in closed form, and what Nuvet writes itself. */
import { DrawingError, type DrawingRead, piecesOfDrawing, readPlot, writeHpgl } from '@nuvet/core/formats';
import { plainMachine } from '@nuvet/core/job';
import { circlePath, pathArea, pathBox, pathLength, polygonPath } from '@nuvet/core/plane';
import { finished } from '@nuvet/core/steps';
import { describe, expect, it } from 'vitest';

const read = (text: string): DrawingRead => finished(readPlot(text));
const boxes = ({ outlines }: DrawingRead): string[] =>
  outlines.map(({ path }) => {
    const { minX, minY, maxX, maxY } = pathBox(path);
    return [minX, minY, maxX, maxY].map((v) => Number(v.toFixed(3))).join(' ');
  });

describe('a plot file', () => {
  it('is 40 units a millimetre, up to down, whole or relative, with or without semicolons', () => {
    const square = '0 0 50 25';
    expect(boxes(read('IN;SP1;PU0,0;PD2000,0,2000,1000,0,1000,0,0;PU;'))).toEqual([square]);
    expect(boxes(read('INSP1PU0 0PD2000 0 2000 1000 0 1000 0 0PU'))).toEqual([square]);
    expect(boxes(read('IN;PU;PA0,0;PD;PR2000,0,0,1000,-2000,0,0,-1000;PU;'))).toEqual([square]);
    expect(read('IN;PU0,0;PD2000,0,2000,1000,0,1000,0,0;PU;').outlines[0]?.path.closed).toBe(true);
    expect(read('IN;PU0,0;PD2000,0,2000,1000;PU;').outlines[0]?.path.closed).toBe(false);
  });
  it('draws circles, arcs by angle and rectangles, each exactly', () => {
    const [circle, arc, edge, filled] = read('IN;PU4000,4000;CI400;PU4400,0;PD;AA4000,0,90;PU;PU0,0;EA400,200;RA800,400;').outlines.map(({ path }) => path); // biome-ignore format: one line
    expect(circle && pathArea(circle)).toBeCloseTo(Math.PI * 100, 9);
    expect(arc?.segments.map(({ kind }) => kind)).toEqual(['arc']);
    expect(arc && pathLength(arc)).toBeCloseTo((Math.PI / 2) * 10, 9);
    expect([edge && pathArea(edge), filled && pathArea(filled)]).toEqual([expect.closeTo(50, 9), expect.closeTo(200, 9)]);
  });
  it('scales user units on to P1 and P2, or by so many units', () => {
    expect(boxes(read('IN;IP0,0,4000,2000;SC0,100,0,50;PU0,0;PD100,0,100,50;PU;'))).toEqual(['0 0 100 50']);
    expect(boxes(read('IN;IP400,0,4000,2000;SC0,40,0,40,2;PU0,0;PD10,0,10,5;PU;'))).toEqual(['10 0 20 5']);
  });
  it('is told apart by pens and dashes; text and what cannot be read are named', () => {
    const { outlines, asides } = read('IN;SP1;PU0,0;PD400,0;PU;LT2;PD800,0;PU;LT;PU40,80;LBHeron Lane\u0003PU0,0;PD0,400;PU;XX1;');
    expect(outlines.map(({ purpose }) => purpose)).toEqual(['cut', 'score', 'cut']);
    expect(asides).toEqual([
      { what: 'text', count: 1, at: { x: 1, y: 2 }, isSeen: true },
      { what: 'the plotter command XX', count: 1, at: null, isSeen: true },
    ]);
  });
  it('that Nuvet wrote comes back as it was', () => {
    const paths = [circlePath({ x: 30, y: 30 }, 12), polygonPath([{ x: 50, y: 5 }, { x: 90, y: 5 }, { x: 70, y: 40 }])]; // biome-ignore format: one line
    const text = writeHpgl(paths.map((path) => ({ path, purpose: 'cut' as const, name: '', overscanMm: 0 })), { machine: plainMachine, box: { minX: 0, minY: 0, maxX: 100, maxY: 60 }, powerSettingOf: () => ({ power: 0.5, speedMmPerMin: 600, passes: 1 }) as never }); // biome-ignore format: one line
    const { pieces } = finished(piecesOfDrawing(read(text), 'd'));
    expect(pieces.map(({ outer }) => Math.abs(pathArea(outer))).sort((a, b) => a - b)).toEqual([
      expect.closeTo(Math.PI * 144, 0),
      expect.closeTo(700, 0),
    ]);
  });
  it('that is none is refused in a sentence', () => {
    for (const text of ['', 'Dear workshop, please cut this by Friday.', '{"a": 1}']) expect(() => read(text)).toThrow(DrawingError);
  });
});
