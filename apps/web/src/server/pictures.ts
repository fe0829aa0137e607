/**
 * Pictures in the database: their bytes as they came, in chunks, streamed both ways; what their header says; their
 * tiles; and their grey pixels for tracing.
 */
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdtemp, open, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream as WebStream } from 'node:stream/web';
import { headerBytes, type PictureHeader, readPictureHeader, uprightSize } from '@nuvet/core/formats';
import type { Picture } from '@nuvet/core/job';
import { greyFromRgba } from '@nuvet/core/raster';
import pLimit from 'p-limit';
import { Op, type Transaction } from 'sequelize';
import sharp from 'sharp';
import { levelsOf } from '../table/pyramid.ts';
import { owned, type Person } from './access.ts';
import { models, type PictureRow } from './models.ts';
import { Problem } from './problem.ts';
import { tileRowsOf } from './tiles.ts';

const mostPixels = 100e6;
const mostBytes = 400e6;
const chunkBytes = 1 << 20;
/** Pictures are worked on one after the other: each may take several hundred megabytes of memory. */
const oneAtATime = pLimit(1);

const asPicture = (row: PictureRow): Picture => ({
  id: row.id,
  name: row.name,
  widthPx: row.widthPx,
  heightPx: row.heightPx,
  resolution: row.resolutionDpi && row.resolutionSource ? { dpi: row.resolutionDpi, source: row.resolutionSource } : null,
  opacity: 1,
  marks: [],
});

async function rowOf(person: Person, id: string): Promise<PictureRow> {
  return owned(person, await models().PictureRow.findByPk(id), 'picture');
}

export const pictureOf = async (person: Person, id: string): Promise<Picture> => asPicture(await rowOf(person, id));

/** Ties a picture to the job that took it in, so that it goes when the job goes. */
export async function adoptPicture(id: string, jobId: string, transaction: Transaction): Promise<void> {
  await models().PictureRow.update({ jobId }, { where: { id, jobId: null }, transaction });
}

/**
 * Takes a picture in: streams it to disk, checks header and every pixel, keeps bytes and tiles.
 * @throws Problem 415 no PNG or JPEG; 413 too large; 422 damaged
 */
export async function receivePicture(person: Person, name: string, body: WebStream<Uint8Array> | null): Promise<Picture> {
  if (!body) throw new Problem(400, 'no-bytes', 'No picture came with the request.');
  const folder = await mkdtemp(join(tmpdir(), 'nuvet-picture-'));
  const file = join(folder, 'picture');
  try {
    await forgetStrays(person);
    await pipeline(Readable.fromWeb(body), limitedTo(mostBytes), createWriteStream(file));
    const header = await checkedHeader(file, name);
    return await oneAtATime(() => keep(person, name, file, header));
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Pictures that no job has taken in within a day are let go. */
async function forgetStrays({ workshopId }: Person): Promise<void> {
  const dayAgo = new Date(Date.now() - 24 * 3600 * 1000);
  await models().PictureRow.destroy({ where: { workshopId, jobId: null, createdAt: { [Op.lt]: dayAgo } } });
}

/** Lets bytes through up to a limit; the rest is read away, so that the answer reaches whoever sends. */
function limitedTo(most: number): Transform {
  let count = 0;
  return new Transform({
    transform(part: Buffer, _encoding, done) {
      count += part.length;
      done(null, count <= most ? part : undefined);
    },
    flush(done) {
      done(count > most ? new Problem(413, 'too-large', `The file is larger than ${most / 1e6} MB.`) : null);
    },
  });
}

async function checkedHeader(file: string, name: string): Promise<PictureHeader> {
  const handle = await open(file);
  const start = Buffer.alloc(headerBytes);
  const { bytesRead } = await handle.read(start, 0, headerBytes, 0).finally(() => handle.close());
  const header = readPictureHeader(start.subarray(0, bytesRead));
  if (!header)
    throw new Problem(415, 'no-picture', `“${name}” is not a PNG or JPEG picture. Save it as one of these and bring it in again.`);
  const { widthPx, heightPx } = header;
  if (widthPx * heightPx > mostPixels) {
    const megapixels = Math.round((widthPx * heightPx) / 1e6);
    throw new Problem(
      413,
      'too-many-pixels',
      `“${name}” has ${widthPx} x ${heightPx} pixels, ${megapixels} megapixels. Nuvet takes up to 100: scan it at a lower resolution, or cut it in parts.`,
    );
  }
  if (widthPx < 2 || heightPx < 2) throw new Problem(422, 'empty', `“${name}” has no pixels to speak of (${widthPx} x ${heightPx}).`);
  return header;
}

async function keep(person: Person, name: string, file: string, header: PictureHeader): Promise<Picture> {
  const { sequelize, PictureRow: Pictures, PictureChunkRow, PictureTileRow } = models();
  const decoded = await decode(file, name, 3);
  return sequelize.transaction(async (transaction) => {
    const row = await Pictures.create(
      {
        workshopId: person.workshopId,
        name,
        kind: header.kind,
        ...uprightSize(header),
        resolutionDpi: header.resolution?.dpi ?? null,
        resolutionSource: header.resolution?.source ?? null,
        byteLength: (await stat(file)).size,
      },
      { transaction },
    );
    let seq = 0;
    for await (const bytes of createReadStream(file, { highWaterMark: chunkBytes })) {
      await PictureChunkRow.create({ pictureId: row.id, seq: seq++, bytes }, { transaction });
    }
    for await (const tiles of tileRowsOf(decoded)) {
      await PictureTileRow.bulkCreate(
        tiles.map((tile) => ({ pictureId: row.id, ...tile })),
        { transaction },
      );
    }
    return asPicture(row);
  });
}

export interface Decoded {
  readonly data: Buffer;
  readonly width: number;
  readonly height: number;
  readonly channels: 3 | 4;
}

/** All pixels, upright, in sRGB: three channels over white, or four. @throws Problem 422 where the file is damaged */
async function decode(source: string | Buffer, name: string, channels: 3 | 4): Promise<Decoded> {
  const upright = sharp(source, { limitInputPixels: mostPixels, failOn: 'truncated' }).rotate().toColourspace('srgb');
  const wanted = channels === 3 ? upright.flatten({ background: '#ffffff' }).removeAlpha() : upright.ensureAlpha();
  const { data, info } = await wanted
    .raw()
    .toBuffer({ resolveWithObject: true })
    .catch(() => {
      throw new Problem(422, 'damaged', `“${name}” is damaged or was cut short: it ends before the picture does. Copy or scan it again.`);
    });
  return { data, width: info.width, height: info.height, channels };
}

/** The bytes as they came, a chunk at a time. */
export async function bytesOf(
  person: Person,
  id: string,
): Promise<{ kind: 'png' | 'jpeg'; name: string; byteLength: number; stream: Readable }> {
  const row = await rowOf(person, id);
  async function* chunks() {
    for (let seq = 0; ; seq++) {
      const chunk = await models().PictureChunkRow.findOne({ where: { pictureId: id, seq } });
      if (!chunk) return;
      yield chunk.bytes;
    }
  }
  return { kind: row.kind, name: row.name, byteLength: row.byteLength, stream: Readable.from(chunks()) };
}

/** The picture's grey pixels, one byte each, rows from the top. */
export async function greyOf(person: Person, id: string): Promise<Uint8Array> {
  return oneAtATime(async () => {
    const { name, stream } = await bytesOf(person, id);
    const parts: Buffer[] = [];
    for await (const part of stream) parts.push(part);
    const { data, width, height } = await decode(Buffer.concat(parts), name, 4);
    return greyFromRgba(data, width, height).data;
  });
}

export async function tileOf(person: Person, id: string, level: number, tileColumn: number, tileRow: number): Promise<Buffer> {
  await rowOf(person, id);
  const tile = await models().PictureTileRow.findOne({ where: { pictureId: id, level, tileColumn, tileRow } });
  if (!tile) throw new Problem(404, 'not-there', 'There is no such part of the picture.');
  return tile.bytes;
}

/** The picture as one tile, at most 512 pixels a side. */
export async function thumbnailOf(person: Person, id: string): Promise<Buffer> {
  const { widthPx, heightPx } = await rowOf(person, id);
  return tileOf(person, id, levelsOf(widthPx, heightPx) - 1, 0, 0);
}
