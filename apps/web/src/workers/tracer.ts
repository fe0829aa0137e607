/**
 * The tracing worker: holds a picture's grey pixels and traces them, the newest request only; writes files.
 */
import { type FilePiece, writeDxf, writeSvg } from '@nuvet/core/formats';
import {
  fromOriginal,
  type JobTrace,
  type JobTraceSettings,
  type Picture,
  pictureSchema,
  pieceSchema,
  type Surface,
  traceOnSheet,
  traceSettingsSchema,
} from '@nuvet/core/job';
import { project } from '@nuvet/core/plane';
import { type GreyPicture, greyPicture, onlyInside } from '@nuvet/core/raster';
import { findInk, fitInk, type Ink, madeSymmetric, type Outlines, type Symmetry, symmetriesOf } from '@nuvet/core/trace';
import { expose } from 'comlink';
import { z } from 'zod';
import { fetchBytes } from './pixels';

/** What is this near to a symmetry is offered it, root mean square, mm; drawings by hand leave it by so much. */
const nearlyMm = 0.6;
/** The step that outlines are walked in to make them symmetric, mm: a pixel at 300 dpi. */
const walkMm = 25.4 / 300;

/** How long the worker computes before it looks whether it is still wanted. */
const breathMs = 30;

interface Held {
  readonly id: string;
  readonly grey: GreyPicture;
  /** The ink found last, and what it was asked by: another tolerance needs no new one. */
  ink?: { readonly key: string; readonly found: Ink };
}

let held: Held | null = null;
let newest = 0;

const breath = () => new Promise<void>((resolve) => setTimeout(resolve, 0));

async function readGrey(surface: Surface, onShare: (share: number) => void): Promise<GreyPicture> {
  const bytes = await fetchBytes(`/api/pictures/${surface.id}/grey`, surface.widthPx * surface.heightPx, onShare);
  return greyPicture(bytes, surface.widthPx, surface.heightPx);
}

/** The picture with paper outside its crop. */
function cropped(grey: GreyPicture, picture: Picture, surface: Surface): GreyPicture {
  if (!picture.crop) return grey;
  const back = fromOriginal(surface);
  return onlyInside(
    grey,
    picture.crop.map((p) => (back ? project(back, p) : p)),
  );
}

function inkOf(picture: Held, mmPerPx: number, { threshold, inverted, smallestMm }: JobTraceSettings): Ink {
  const key = JSON.stringify([threshold, inverted, smallestMm, mmPerPx]);
  if (picture.ink?.key !== key) picture.ink = { key, found: findInk(picture.grey, mmPerPx, { threshold, inverted, smallestMm }) };
  return picture.ink.found;
}

const tracer = {
  /**
   * Traces a picture; an older request that is still under way ends with null.
   * @param onShare hears what is under way and the share done, 0 to 1
   */
  async trace(
    asked: unknown,
    surface: Surface,
    wish: unknown,
    onShare: (word: 'reading' | 'tracing', share: number) => void,
  ): Promise<JobTrace | null> {
    const picture = pictureSchema.parse(asked);
    const settings: JobTraceSettings = traceSettingsSchema.parse(wish);
    const mine = ++newest;
    const id = JSON.stringify([surface.id, picture.crop]);
    if (held?.id !== id) held = { id, grey: cropped(await readGrey(surface, (share) => onShare('reading', share)), picture, surface) };
    if (mine !== newest) return null;
    const { mmPerPx } = surface;
    const ink = inkOf(held, mmPerPx, settings);
    await breath();
    if (mine !== newest) return null;
    const steps = fitInk(ink, mmPerPx, settings);
    let since = performance.now();
    for (let step = steps.next(); ; step = steps.next()) {
      if (step.done) return traceOnSheet(picture, settings, step.value, surface);
      if (performance.now() - since < breathMs) continue;
      onShare('tracing', step.value);
      await breath();
      if (mine !== newest) return null;
      since = performance.now();
    }
  },

  /** The symmetries that a piece nearly has, on the sheet. */
  symmetries(asked: unknown): Symmetry[] {
    const { outer, holes } = pieceSchema.parse(asked);
    return outer.closed ? symmetriesOf({ outer, holes }, nearlyMm) : [];
  },

  /** A piece made exactly symmetric; null where its outlines cannot be matched. */
  symmetric(asked: unknown, symmetry: Symmetry, toleranceMm: number): Outlines | null {
    const { outer, holes } = pieceSchema.parse(asked);
    return madeSymmetric({ outer, holes }, symmetry, walkMm, toleranceMm);
  },

  /** Ends what is under way. */
  stop(): void {
    newest++;
  },

  /** A file's text from pieces. */
  write(kind: 'svg' | 'dxf', asked: unknown, title: string): string {
    const pieces: FilePiece[] = z.array(pieceSchema).parse(asked);
    return kind === 'svg' ? writeSvg(pieces, title) : writeDxf(pieces, title);
  },
};

export type Tracer = typeof tracer;

expose(tracer);
