/**
 * In: a PDF's bytes. Out: one page of it as a PNG.
 */
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { Canvas } from '@napi-rs/canvas';
import { UsageError } from './arguments.ts';

const maxPixels = 100e6;
const packageFolder = dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json'));
const dataFolder = (name: string): string => `${join(packageFolder, name)}/`;

/** A page of a PDF, and how fine it is to be drawn. */
export interface PdfPageRequest {
  readonly file: string;
  readonly bytes: Uint8Array;
  /** From 1. */
  readonly page: number;
  readonly dpi: number;
}

/** @throws UsageError where the file is locked or broken, has no such page, or would come out too large */
export async function renderPdfPage({ file, bytes, page, dpi }: PdfPageRequest): Promise<Buffer> {
  const { getDocument, VerbosityLevel } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const opened = await getDocument({
    data: new Uint8Array(bytes),
    verbosity: VerbosityLevel.ERRORS,
    isEvalSupported: false,
    disableFontFace: true,
    useSystemFonts: false,
    standardFontDataUrl: dataFolder('standard_fonts'),
    cMapUrl: dataFolder('cmaps'),
    wasmUrl: dataFolder('wasm'),
    iccUrl: dataFolder('iccs'),
  }).promise.catch((error: Error) => {
    const why = error.name === 'PasswordException' ? 'is locked with a password' : 'is damaged, or is no PDF';
    throw new UsageError(`${file}: ${why}`);
  });
  try {
    if (page > opened.numPages) throw new UsageError(`${file}: has ${opened.numPages} pages; there is no page ${page}`);
    const proxy = await opened.getPage(page);
    const viewport = proxy.getViewport({ scale: dpi / 72 });
    const [width, height] = [Math.round(viewport.width), Math.round(viewport.height)];
    if (!(width > 0 && height > 0)) throw new UsageError(`${file}: page ${page} has no size`);
    if (width * height > maxPixels) throw new UsageError(`${file}: ${width} x ${height} pixels are too many; choose a lower --dpi`);
    const { createCanvas } = await import('@napi-rs/canvas');
    const canvas: Canvas = createCanvas(width, height);
    const context = canvas.getContext('2d');
    context.fillStyle = '#ffffff';
    context.fillRect(0, 0, width, height);
    await proxy.render({ canvas: null, canvasContext: context as never, viewport, background: '#ffffff' }).promise;
    return canvas.toBuffer('image/png');
  } catch (error) {
    if (error instanceof UsageError) throw error;
    throw new UsageError(`${file}: page ${page} is damaged and cannot be drawn`);
  } finally {
    await opened.loadingTask.destroy().catch(() => {});
  }
}
