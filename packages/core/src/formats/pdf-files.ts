/** PDF files. The library that writes and reads them is larger than all of the core: it is loaded when a PDF is first asked for. */

export type { Underlay } from './print-tiles.ts';
export type { ProofFacts } from './proof-sheet.ts';
export type { CardPage } from './scale-card-pdf.ts';

type Written<F extends (...words: never[]) => unknown> = (...words: Parameters<F>) => ReturnType<F>;

export const writePdf: Written<typeof import('./pdf.ts').writePdf> = async (...words) => (await import('./pdf.ts')).writePdf(...words);
export const readPdfPaths: Written<typeof import('./pdf-reading.ts').readPdfPaths> = async (...words) => (await import('./pdf-reading.ts')).readPdfPaths(...words); // biome-ignore format: one line
export const writeTiles: Written<typeof import('./print-tiles.ts').writeTiles> = async (...words) => (await import('./print-tiles.ts')).writeTiles(...words); // biome-ignore format: one line
export const writeProofSheet: Written<typeof import('./proof-sheet.ts').writeProofSheet> = async (...words) => (await import('./proof-sheet.ts')).writeProofSheet(...words); // biome-ignore format: one line
export const writeScaleCard: Written<typeof import('./scale-card-pdf.ts').writeScaleCard> = async (...words) => (await import('./scale-card-pdf.ts')).writeScaleCard(...words); // biome-ignore format: one line
