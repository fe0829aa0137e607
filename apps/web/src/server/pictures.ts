/**
 * Pictures in the database: their bytes as they came, in chunks, streamed both ways; what their header says; their
 * tiles; and their grey pixels for tracing.
 */
import { createReadStream } from 'node:fs';
import { readFile, stat } from 'node:fs/promises';
import { Readable } from 'node:stream';
import type { ReadableStream as WebStream } from 'node:stream/web';
import { newPicture, type Picture } from '@nuvet/core/job';
import { greyFromRgba } from '@nuvet/core/raster';
import { type Decoded, decodePicture, maxPixels, PictureError, type PictureFile, type PictureKind, readPictureFile } from '@nuvet/pictures';
import pLimit from 'p-limit';
import type { CreationAttributes, Transaction } from 'sequelize';
import sharp from 'sharp';
import { levelsOf } from '../shared/pyramid.ts';
import { words } from '../words/index.ts';
import { owned, type Person } from './access.ts';
import { HttpError } from './http-error.ts';
import { models, type PictureRow } from './models.ts';
import { inThread } from './threads/threads.ts';
import { tileRowsOf } from './tiles.ts';
import { withUpload } from './uploads.ts';

const maxBytes = 400e6;
const chunkBytes = 1 << 20;
/** Pictures are worked on one after the other: each may take several hundred megabytes of memory. */
const oneAtATime = pLimit(1);

/** How a picture comes: which page of a file, and the resolution where whoever sends it knows it better than the file. */
export interface Coming {
  readonly name: string;
  readonly page: number;
  readonly resolution: { readonly dpi: number; readonly source: 'pdf' | 'scanner' } | null;
}

const asPicture = ({
  id,
  name,
  widthPx,
  heightPx,
  resolutionDpi: dpi,
  resolutionSource: source,
  resolutionTrusted: trusted,
}: PictureRow): Picture => newPicture({ id, name, widthPx, heightPx, resolution: dpi && source ? { dpi, source, trusted } : null });

async function rowOf(person: Person, id: string): Promise<PictureRow> {
  return owned(person, await models().PictureRow.findByPk(id), 'picture');
}

export const pictureOf = async (person: Person, id: string): Promise<Picture> => asPicture(await rowOf(person, id));

/** Ties a picture to a job that uses it: it stays as long as any job does. */
export async function tieToJob(pictureId: string, jobId: string, transaction: Transaction): Promise<void> {
  await models().JobPictureRow.bulkCreate([{ jobId, pictureId }], { ignoreDuplicates: true, transaction });
}

/**
 * Takes a picture in: streams it to disk, checks header and every pixel, keeps bytes and tiles.
 * @throws Problem 415 no picture; 413 too large; 422 damaged, or no such page
 */
export async function receivePicture(person: Person, coming: Coming, body: WebStream<Uint8Array> | null): Promise<Picture> {
  if (!body) throw new HttpError(400, 'no-bytes', words.server.noPictureCameWithTheRequest);
  await letUnusedGo(person.workshopId);
  return withUpload(body, maxBytes, async (file) => {
    const found = await readPictureFile(file, coming.name, coming.page).catch(asHttpError);
    return oneAtATime(() => keep(person, coming, file, found));
  });
}

const statuses: Record<PictureError['code'], number> = {
  'no-picture': 415,
  'too-many-pixels': 413,
  empty: 422,
  damaged: 422,
  'no-such-page': 422,
};

function asHttpError(error: unknown): never {
  if (error instanceof PictureError) throw new HttpError(statuses[error.code], error.code, error.message);
  throw error;
}

/** Pictures that no job uses, a day after they came, go. Working copies go with their originals. */
export async function letUnusedGo(workshopId: string): Promise<void> {
  await models().sequelize.query(
    `delete from pictures where workshop_id = :workshopId and original_id is null and created_at < now() - interval '1 day'
      and not exists (select 1 from job_pictures where job_pictures.picture_id = pictures.id)`,
    { replacements: { workshopId } },
  );
}

async function keep(person: Person, coming: Coming, file: string, { kind, resolution }: PictureFile): Promise<Picture> {
  const decoded = await decodedFile(file, kind, coming.name, coming.page, 3);
  const stated = coming.resolution ? { ...coming.resolution, trusted: true } : resolution;
  const row = {
    workshopId: person.workshopId,
    name: coming.name,
    kind,
    page: coming.page,
    resolutionDpi: stated?.dpi ?? null,
    resolutionSource: stated?.source ?? null,
    resolutionTrusted: stated?.trusted ?? true,
    byteLength: (await stat(file)).size,
  };
  return asPicture(await stored(row, decoded, createReadStream(file, { highWaterMark: chunkBytes })));
}

/** A picture's row, its bytes and its tiles, all or none. */
async function stored(
  values: Omit<CreationAttributes<PictureRow>, 'widthPx' | 'heightPx'>,
  decoded: Decoded,
  bytes: AsyncIterable<Buffer> | Iterable<Buffer>,
): Promise<PictureRow> {
  const { sequelize, PictureRow: Pictures, PictureChunkRow, PictureTileRow } = models();
  return sequelize.transaction(async (transaction) => {
    const row = await Pictures.create({ ...values, widthPx: decoded.width, heightPx: decoded.height } as CreationAttributes<PictureRow>, {
      transaction,
    });
    let seq = 0;
    for await (const part of bytes) await PictureChunkRow.create({ pictureId: row.id, seq: seq++, bytes: part }, { transaction });
    for await (const tiles of tileRowsOf(decoded)) {
      await PictureTileRow.bulkCreate(
        tiles.map((tile) => ({ pictureId: row.id, ...tile })),
        { transaction },
      );
    }
    return row;
  });
}

/** The bytes as they came, a chunk at a time. */
export async function bytesOf(
  person: Person,
  id: string,
): Promise<{ kind: PictureKind; page: number; name: string; byteLength: number; stream: Readable }> {
  const row = await rowOf(person, id);
  async function* chunks() {
    for (let seq = 0; ; seq++) {
      const chunk = await models().PictureChunkRow.findOne({ where: { pictureId: id, seq } });
      if (!chunk) return;
      yield chunk.bytes;
    }
  }
  return { kind: row.kind, page: row.page, name: row.name, byteLength: row.byteLength, stream: Readable.from(chunks()) };
}

async function pixelsOf(person: Person, id: string, channels: 3 | 4): Promise<Decoded> {
  const { name, kind, page, stream } = await bytesOf(person, id);
  const parts: Buffer[] = [];
  for await (const part of stream) parts.push(part);
  return decodedFile(Buffer.concat(parts), kind, name, page, channels);
}

/** A picture's pixels. BMP is decoded in JavaScript, and so in a thread of its own; all others by libvips, in its own threads. */
async function decodedFile(source: string | Buffer, kind: PictureKind, name: string, page: number, channels: 3 | 4): Promise<Decoded> {
  if (kind !== 'bmp') return decodePicture(source, kind, name, page, channels).catch(asHttpError);
  const decoded = await inThread('bmp', { source, name, channels }, 60_000).catch((error: Error) => {
    throw new HttpError(422, 'damaged', error.message);
  });
  return { ...decoded, data: Buffer.from(decoded.data.buffer, decoded.data.byteOffset, decoded.data.byteLength) };
}

/** The picture's grey pixels, one byte each, rows from the top. */
export async function greyOf(person: Person, id: string): Promise<Uint8Array> {
  return oneAtATime(async () => {
    const { data, width, height } = await pixelsOf(person, id, 4);
    return greyFromRgba(data, width, height).data;
  });
}

/** The picture's colours over white: red, green, blue, rows from the top. */
export const pictureColours = (person: Person, id: string): Promise<Uint8Array> =>
  oneAtATime(async () => (await pixelsOf(person, id, 3)).data);

/** A working copy of a picture, made for one true-up fit, by the fit's key; null where there is none. */
export async function workingCopyOf(person: Person, id: string, key: string): Promise<string | null> {
  await rowOf(person, id);
  const row = await models().PictureRow.findOne({ where: { originalId: id, workingKey: key } });
  return row?.id ?? null;
}

const maxWorkingCopies = 3;

/**
 * Keeps a working copy: raw pixels, one or three bytes each. The oldest copies of the picture go.
 * @throws Problem 400 where the bytes are not width x height x channels
 */
export async function keepWorkingCopy(
  person: Person,
  id: string,
  key: string,
  size: { width: number; height: number; channels: 1 | 3 },
  body: WebStream<Uint8Array> | null,
): Promise<string> {
  const original = await rowOf(person, id);
  const wanted = size.width * size.height * size.channels;
  if (!body || size.width * size.height > maxPixels) throw new HttpError(400, 'not-understood', words.server.thisIsNoWorkingCopy);
  return withUpload(body, wanted, (file) => oneAtATime(() => kept(original, key, size, file, wanted)));
}

async function kept(
  original: PictureRow,
  key: string,
  size: { width: number; height: number; channels: 1 | 3 },
  file: string,
  wanted: number,
): Promise<string> {
  const { id, workshopId } = original;
  if ((await stat(file)).size !== wanted) throw new HttpError(400, 'not-understood', words.server.theWorkingCopyIsNotWhole);
  const there = await models().PictureRow.findOne({ where: { originalId: id, workingKey: key }, attributes: ['id'] });
  if (there) return there.id;
  const raw = await readFile(file);
  const opened = () => sharp(raw, { raw: { width: size.width, height: size.height, channels: size.channels }, limitInputPixels: false });
  const data = size.channels === 3 ? raw : await opened().toColourspace('srgb').removeAlpha().raw().toBuffer();
  const png = await opened().png({ compressionLevel: 2 }).toBuffer();
  const chunks = Array.from({ length: Math.ceil(png.length / chunkBytes) }, (_, k) => png.subarray(k * chunkBytes, (k + 1) * chunkBytes));
  const row = await stored(
    {
      workshopId,
      originalId: id,
      workingKey: key,
      name: original.name,
      kind: 'png',
      page: 0,
      resolutionDpi: null,
      resolutionSource: null,
      resolutionTrusted: true,
      byteLength: png.length,
    },
    { data, width: size.width, height: size.height, channels: 3 },
    chunks,
  );
  const copies = await models().PictureRow.findAll({
    where: { originalId: id },
    order: [['createdAt', 'DESC']],
    offset: maxWorkingCopies,
  });
  for (const copy of copies) await copy.destroy();
  return row.id;
}

export async function tileOf(person: Person, id: string, level: number, tileColumn: number, tileRow: number): Promise<Buffer> {
  await rowOf(person, id);
  const tile = await models().PictureTileRow.findOne({ where: { pictureId: id, level, tileColumn, tileRow } });
  if (!tile) throw new HttpError(404, 'not-there', words.server.thereIsNoSuchPartOf);
  return tile.bytes;
}

/** The picture as one tile, at most 512 pixels a side. */
export async function thumbnailOf(person: Person, id: string): Promise<Buffer> {
  const { widthPx, heightPx } = await rowOf(person, id);
  return tileOf(person, id, levelsOf(widthPx, heightPx) - 1, 0, 0);
}
