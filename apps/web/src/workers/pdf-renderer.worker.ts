/**
 * The worker that renders pages of a PDF to pictures. The PDF reader itself runs in this same worker.
 */
import { expose } from 'comlink';
import { getDocument, type PDFDocumentProxy } from 'pdfjs-dist';
import * as reader from 'pdfjs-dist/build/pdf.worker.mjs';

// The reader looks here for its other half before it starts a worker of its own.
(globalThis as unknown as { pdfjsWorker: unknown }).pdfjsWorker = reader;

class OffscreenCanvases {
  create(width: number, height: number) {
    const canvas = new OffscreenCanvas(Math.max(1, width), Math.max(1, height));
    return { canvas, context: canvas.getContext('2d', { willReadFrequently: false }) };
  }

  reset(made: { canvas: OffscreenCanvas | null }, width: number, height: number) {
    if (made.canvas) {
      made.canvas.width = Math.max(1, width);
      made.canvas.height = Math.max(1, height);
    }
  }

  destroy(made: { canvas: OffscreenCanvas | null; context: unknown }) {
    made.canvas = null;
    made.context = null;
  }
}

class NoFilters {
  addFilter() {
    return 'none';
  }
  addHCMFilter() {
    return 'none';
  }
  addAlphaFilter() {
    return 'none';
  }
  addLuminosityFilter() {
    return 'none';
  }
  addHighlightHCMFilter() {
    return 'none';
  }
  destroy() {}
}

export interface RenderedPage {
  readonly widthMm: number;
  readonly heightMm: number;
}

export type PdfTrouble = 'password' | 'broken';

let open: PDFDocumentProxy | null = null;
const pointsPerMm = 72 / 25.4;
const maxPixels = 100e6;
const maxPages = 2000;

const renderer = {
  /** Opens a document; its pages' sizes, or what is wrong with it. */
  async open(bytes: Uint8Array, dataAddress: string): Promise<readonly RenderedPage[] | PdfTrouble> {
    await open?.loadingTask.destroy();
    open = null;
    try {
      open = await getDocument({
        data: bytes,
        CanvasFactory: OffscreenCanvases,
        FilterFactory: NoFilters,
        disableFontFace: true,
        useSystemFonts: false,
        isEvalSupported: false,
        enableXfa: false,
        stopAtErrors: false,
        standardFontDataUrl: `${dataAddress}standard_fonts/`,
        cMapUrl: `${dataAddress}cmaps/`,
        wasmUrl: `${dataAddress}wasm/`,
        iccUrl: `${dataAddress}iccs/`,
        useWorkerFetch: true,
      } as Parameters<typeof getDocument>[0]).promise;
      const pages: RenderedPage[] = [];
      for (let k = 1; k <= Math.min(maxPages, open.numPages); k++) {
        const { width, height } = (await open.getPage(k)).getViewport({ scale: 1 });
        pages.push({ widthMm: width / pointsPerMm, heightMm: height / pointsPerMm });
      }
      return pages;
    } catch (error) {
      return (error as Error).name === 'PasswordException' ? 'password' : 'broken';
    }
  },

  /** A page as a PNG on white; `page` from 0. Null where it would have more pixels than Nuvet takes. */
  async render(page: number, dpi: number): Promise<Blob | null> {
    if (!open) throw new Error('no document is open');
    const proxy = await open.getPage(page + 1);
    const viewport = proxy.getViewport({ scale: dpi / 72 });
    const [width, height] = [Math.round(viewport.width), Math.round(viewport.height)];
    if (width * height > maxPixels) return null;
    const canvas = new OffscreenCanvas(width, height);
    const context = canvas.getContext('2d', { alpha: false }) as OffscreenCanvasRenderingContext2D;
    context.fillStyle = '#ffffff';
    context.fillRect(0, 0, width, height);
    await proxy.render({ canvas: null, canvasContext: context as unknown as CanvasRenderingContext2D, viewport, background: '#ffffff' })
      .promise;
    proxy.cleanup();
    return canvas.convertToBlob({ type: 'image/png' });
  },
};

export type PdfRenderer = typeof renderer;

expose(renderer);
