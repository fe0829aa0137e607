/**
 * The worker that reads drawing files: SVG and DXF to pieces, with progress; it is stopped by ending it.
 */
import { DrawingError, piecesOfDrawing, readDxf, readPlot, readSvg } from '@nuvet/core/formats';
import { cleanText, type Drawing } from '@nuvet/core/job';
import { expose } from 'comlink';
import { runInSlices } from './slices';

const readers = { svg: readSvg, dxf: readDxf, hpgl: readPlot } as const;

function kindOf(name: string, text: string): keyof typeof readers {
  if (/\.(plt|hpgl|hpg)$/i.test(name)) return 'hpgl';
  return /\.dxf$/i.test(name) || !/<(?:[\w.-]+:)?svg[\s>]/i.test(text.slice(0, 200_000)) ? 'dxf' : 'svg';
}

const reader = {
  /** The drawing, or what a person must know about why it could not be read. */
  async read(
    file: File,
    id: string,
    onShare: (share: number) => void,
  ): Promise<{ readonly drawing: Drawing } | { readonly code: string; readonly message: string }> {
    try {
      const text = await file.text();
      const kind = kindOf(file.name, text);
      const read = await runInSlices(readers[kind](text), (share) => onShare(0.7 * share));
      const { pieces, notes } = await runInSlices(piecesOfDrawing(read, id), (share) => onShare(0.7 + 0.3 * share));
      const { mmPerUnit, unitIsStated } = read;
      return {
        drawing: {
          id,
          name: Array.from(cleanText(file.name)).slice(0, 100).join('') || 'drawing',
          kind,
          unitIsStated,
          mmPerUnit,
          hidden: false,
          notes: notes.slice(0, 50),
          pieces,
        },
      };
    } catch (error) {
      if (error instanceof DrawingError) return { code: error.code, message: `“${file.name}”: ${error.message}` };
      throw error;
    }
  },
};

export type DrawingReader = typeof reader;

expose(reader);
