'use client';
import { tiffPages } from '@nuvet/core/formats';
/**
 * In: files of any kind that Nuvet takes. Out: pictures kept on the server, and drawings; with a message for each file
 * that could not be brought in. One bad file does not keep the others out.
 */
import type { Drawing, Picture } from '@nuvet/core/job';
import { proxy } from 'comlink';
import { nanoid } from 'nanoid';
import { RequestError, type Sending, sendPicture } from '@/ui/requests';
import { words } from '@/words';
import { drawingReader } from '@/workers/drawing-reader.client';
import { pdfRenderer } from '@/workers/pdf-renderer.client';
import type { PageRequest } from './PageChooser';

const maxBytes = 400e6;

export interface Brought {
  readonly pictures: readonly Picture[];
  readonly drawings: readonly Drawing[];
  readonly messages: readonly string[];
}

export interface Progress {
  readonly word: string;
  /** Null while nobody can tell. */
  readonly share: number | null;
}

interface BringInOptions {
  readonly ask: (request: PageRequest) => Promise<PageRequest['answer']>;
  readonly onProgress: (progress: Progress) => void;
  readonly signal: AbortSignal;
  readonly known: { readonly dpi: number; readonly source: 'scanner' } | null;
}

type Kind = 'picture' | 'tiff' | 'pdf' | 'drawing';

async function kindOf(file: File): Promise<Kind> {
  const start = new TextDecoder('latin1').decode(await file.slice(0, 1024).arrayBuffer());
  if (start.includes('%PDF-')) return 'pdf';
  if (/^(II\*\0|MM\0\*)/.test(start)) return 'tiff';
  if (/\.(svg|dxf|plt|hpgl|hpg)$/i.test(file.name) || /<(?:[\w.-]+:)?svg[\s>]/i.test(start) || file.type === 'image/svg+xml')
    return 'drawing';
  return 'picture';
}

export async function bringIn(files: readonly File[], options: BringInOptions): Promise<Brought> {
  const pictures: Picture[] = [];
  const drawings: Drawing[] = [];
  const messages: string[] = [];
  for (const file of files) {
    try {
      options.signal.throwIfAborted();
      if (file.size > maxBytes) throw new RequestError('too-large', words.bringIn.isLargerThanMb(file.name, maxBytes / 1e6));
      const kind = await kindOf(file);
      if (kind === 'drawing') drawings.push(await readDrawing(file, options));
      else if (kind === 'pdf') pictures.push(...(await renderPdf(file, options)));
      else if (kind === 'tiff') pictures.push(...(await sendTiff(file, options)));
      else
        pictures.push(
          await send(file, { name: file.name || 'pasted.png', ...(options.known ? { resolution: options.known } : {}) }, options),
        );
    } catch (error) {
      if (error instanceof RequestError) messages.push(error.message);
      else if (options.signal.aborted) messages.push(words.bringIn.stoppedNothingMoreWasBroughtIn);
      else throw error;
    }
  }
  return { pictures, drawings, messages: [...new Set(messages)] };
}

/** What a worker answers; a worker that was ended answers nothing, so that stopping must end the wait. */
function untilStopped<P extends Promise<unknown>>(answer: P, signal: AbortSignal): Promise<Awaited<P>> {
  const stopped = new Promise<never>((_, reject) => {
    signal.addEventListener('abort', () => reject(new RequestError('stopped', words.bringIn.stoppedNothingWasBroughtIn)));
  });
  return Promise.race([answer, stopped]) as Promise<Awaited<P>>;
}

const send = (body: Blob, sending: Sending, { onProgress, signal }: BringInOptions): Promise<Picture> => {
  const inWords = (share: number): Progress =>
    share < 1
      ? { word: words.bringIn.bringingInPercent(sending.name, Math.round(share * 100)), share }
      : { word: words.bringIn.preparingThePictureForEveryZoom, share: null };
  onProgress(inWords(0));
  return sendPicture(body, sending, (share) => onProgress(inWords(share)), signal);
};

async function sendTiff(file: File, options: BringInOptions): Promise<Picture[]> {
  options.onProgress({ word: words.bringIn.lookingInto(file.name), share: null });
  const pages = (tiffPages(new Uint8Array(await file.arrayBuffer())) ?? [])
    .map((page, index) => ({ ...page, index }))
    .filter((p) => p.widthPx > 0);
  if (pages.length <= 1) return [await send(file, { name: file.name, page: pages[0]?.index ?? 0 }, options)];
  const answer = await options.ask({
    name: file.name,
    kind: 'tiff',
    pages: pages.map((p) => ({ size: words.bringIn.pixelsOf(p.widthPx, p.heightPx) })),
    thumbnail: null,
    answer: null,
  });
  const sent: Picture[] = [];
  for (const chosen of answer?.pages ?? []) {
    options.signal.throwIfAborted();
    const page = pages[chosen]?.index ?? 0;
    sent.push(await send(file, { name: words.bringIn.pageName(file.name, chosen + 1), page }, options));
  }
  return sent;
}

async function renderPdf(file: File, options: BringInOptions): Promise<Picture[]> {
  options.onProgress({ word: words.bringIn.opening(file.name), share: null });
  const { renderer, end } = pdfRenderer(options.signal);
  try {
    const bytes = new Uint8Array(await file.arrayBuffer());
    const opened = await untilStopped(renderer.open(bytes, new URL('/pdf/', window.location.href).href), options.signal);
    if (opened === 'password') throw new RequestError('password', words.bringIn.isLockedWithAPasswordSave(file.name));
    if (opened === 'broken') throw new RequestError('damaged', words.bringIn.isDamagedOrIsNoPdf(file.name));
    const answer = await options.ask({
      name: file.name,
      kind: 'pdf',
      pages: opened.map((p) => ({ size: words.bringIn.pageSize(p.widthMm.toFixed(0), p.heightMm.toFixed(0)) })),
      thumbnail: async (page) => {
        const size = opened[page];
        const blob = size && (await renderer.render(page, Math.max(4, (110 * 25.4) / Math.max(size.widthMm, size.heightMm))));
        return blob ? URL.createObjectURL(blob) : null;
      },
      answer: null,
    });
    const sent: Picture[] = [];
    for (const page of answer?.pages ?? []) {
      options.signal.throwIfAborted();
      options.onProgress({ word: words.bringIn.drawingPageAtDpi(page + 1, answer?.dpi), share: null });
      const dpi = answer?.dpi ?? 300;
      const png = await untilStopped(renderer.render(page, dpi), options.signal);
      if (!png) throw new RequestError('too-many-pixels', words.bringIn.pageTooLarge(page + 1, dpi));
      const name = opened.length > 1 ? words.bringIn.pageName(file.name, page + 1) : file.name;
      sent.push(await send(png, { name, resolution: { dpi, source: 'pdf' } }, options));
    }
    return sent;
  } finally {
    end();
  }
}

async function readDrawing(file: File, { onProgress, signal }: BringInOptions): Promise<Drawing> {
  onProgress({ word: words.bringIn.reading(file.name), share: 0 });
  const { reader, end } = drawingReader(signal);
  try {
    const onShare = proxy((share: number) => onProgress({ word: words.bringIn.readingPercent(file.name, Math.round(share * 100)), share }));
    const read = await untilStopped(reader.read(file, nanoid(), onShare), signal);
    if ('code' in read) throw new RequestError(read.code, read.message);
    return read.drawing;
  } finally {
    end();
  }
}
