/**
 * In: a PDF that Nuvet wrote. Out: the outlines on its pages, in mm from each page's lower left corner, with the marked content
 * that they stand in.
 * Rests on: ISO 32000-1:2008, 8.5.2 (path construction), 8.4.4 (graphics state), 14.6 (marked content).
 */
import { decodePDFRawStream, PDFArray, PDFDocument, PDFRawStream, PDFRef } from 'pdf-lib';
import type { Path } from '../plane/path.ts';
import { distance, type Point } from '../plane/point.ts';
import type { Segment } from '../plane/segment.ts';
import { apply, chain, identity, type Transform } from '../plane/transform.ts';
import { pointsPerMm } from './pdf-drawing.ts';

export interface PdfPage {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly paths: readonly { readonly path: Path; readonly mark: string | null }[];
}

export async function readPdfPaths(bytes: Uint8Array): Promise<PdfPage[]> {
  const pdf = await PDFDocument.load(bytes);
  return pdf.getPages().map((page) => {
    const contents = page.node.Contents();
    const streams = contents instanceof PDFArray ? contents.asArray() : contents ? [contents] : [];
    const text = streams
      .map((s) => (s instanceof PDFRef ? page.node.context.lookup(s) : s))
      .map((s) => (s instanceof PDFRawStream ? latin(decodePDFRawStream(s).decode()) : ''))
      .join('\n');
    const { width, height } = page.getSize();
    return { widthMm: width / pointsPerMm, heightMm: height / pointsPerMm, paths: pathsIn(text) };
  });
}

function latin(bytes: Uint8Array): string {
  let text = '';
  for (let k = 0; k < bytes.length; k += 8192) text += String.fromCharCode(...bytes.subarray(k, k + 8192));
  return text;
}

function pathsIn(text: string): { path: Path; mark: string | null }[] {
  const found: { path: Path; mark: string | null }[] = [];
  const states: Transform[] = [];
  const marks: string[] = [];
  let t: Transform = identity;
  let operands: string[] = [];
  let paths: { start: Point; segments: Segment[]; closed: boolean }[] = [];
  const at = (k: number): Point => {
    const p = apply(t, { x: Number(operands[k]), y: Number(operands[k + 1]) });
    return { x: p.x / pointsPerMm, y: p.y / pointsPerMm };
  };
  const add = (segment: Segment): void => {
    paths.at(-1)?.segments.push(segment);
  };
  const operators: Record<string, () => void> = {
    q: () => states.push(t),
    Q: () => {
      t = states.pop() ?? identity;
    },
    cm: () => {
      const [a, b, c, d, e, f] = operands.slice(-6).map(Number) as [number, number, number, number, number, number];
      t = chain(t, { a, b, c, d, e, f });
    },
    BMC: () => marks.push((operands[0] ?? '').slice(1)),
    EMC: () => marks.pop(),
    m: () => paths.push({ start: at(0), segments: [], closed: false }),
    l: () => add({ kind: 'line', to: at(0) }),
    c: () => add({ kind: 'cubic', c1: at(0), c2: at(2), to: at(4) }),
    h: () => {
      const last = paths.at(-1);
      if (last) last.closed = true;
    },
    S: () => {
      for (const { start, segments, closed } of paths) {
        const end = segments.at(-1)?.to ?? start;
        const whole: Segment[] = closed && distance(end, start) > 1e-6 ? [...segments, { kind: 'line', to: start }] : segments;
        if (whole.length > 0) found.push({ path: { start, segments: whole, closed }, mark: marks.at(-1) ?? null });
      }
      paths = [];
    },
    n: () => {
      paths = [];
    },
    f: () => {
      paths = [];
    },
  };
  // Texts in brackets hold no operators.
  for (const [token] of text.replace(/\((?:\\.|[^\\()])*\)/g, '()').matchAll(/\/[^\s/[\]<>()]*|\[[^\]]*\]|<[^>]*>|\(\)|[^\s/[\]<>()]+/g)) {
    if (/^[-+.\d[/<(]/.test(token)) {
      operands.push(token);
      continue;
    }
    operators[token]?.();
    operands = [];
  }
  return found;
}
