/** The tile pyramid as the server serves it, against the picture that went in. */
import { demoJobs, pngOf, type Scene, scanScene } from '@nuvet/truth';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { levelSize, levelsOf, tileSize } from '../../apps/web/src/shared/pyramid.ts';
import { address, sendPicture } from './server.ts';

const { picture } = scanScene(demoJobs[3]?.scene as Scene, { dpi: 150, noise: 5, seed: 23 });
const levels = levelsOf(picture.width, picture.height);
let id: string;
beforeAll(async () => {
  ({ id } = (await (await sendPicture('tiles.png', await pngOf(picture, 150))).json()) as { id: string });
});

async function tile(level: number, column: number, row: number) {
  const response = await fetch(`${address}/api/pictures/${id}/tiles/${level}/${column}/${row}`);
  expect(response.status).toBe(200);
  const { data, info } = await sharp(Buffer.from(await response.arrayBuffer()))
    .toColourspace('b-w')
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height };
}

describe('tiles', () => {
  it('of the finest level are the picture itself, pixel for pixel within what JPEG loses', async () => {
    const rows = Math.ceil(picture.height / tileSize);
    const columns = Math.ceil(picture.width / tileSize);
    expect(rows * columns).toBeGreaterThan(3);
    for (let row = 0; row < rows; row++) {
      for (let column = 0; column < columns; column++) {
        const { data, width, height } = await tile(0, column, row);
        let off = 0;
        for (let y = 0; y < height; y++) {
          for (let x = 0; x < width; x++) {
            off += Math.abs(
              (data[y * width + x] as number) - (picture.data[(row * tileSize + y) * picture.width + column * tileSize + x] as number),
            );
          }
        }
        expect(off / (width * height)).toBeLessThan(4);
      }
    }
  });
  it('reach one pixel over their neighbours, and no farther than the picture', async () => {
    const first = await tile(0, 0, 0);
    expect([first.width, first.height]).toEqual([tileSize + 1, tileSize + 1]);
    const last = await tile(0, Math.ceil(picture.width / tileSize) - 1, Math.ceil(picture.height / tileSize) - 1);
    expect([last.width, last.height]).toEqual([picture.width % tileSize, picture.height % tileSize]);
  });
  it('end in one that shows the whole picture, as bright as it is', async () => {
    const top = await tile(levels - 1, 0, 0);
    expect({ width: top.width, height: top.height }).toEqual(levelSize(picture.width, picture.height, levels - 1));
    const mean = (data: Uint8Array) => data.reduce((a, b) => a + b, 0) / data.length;
    expect(Math.abs(mean(top.data) - mean(picture.data))).toBeLessThan(1.5);
    expect((await fetch(`${address}/api/pictures/${id}/tiles/${levels}/0/0`)).status).toBe(404);
    expect((await fetch(`${address}/api/pictures/${id}/thumbnail`)).status).toBe(200);
  });
  it('are asked for by whole numbers only', async () => {
    for (const path of ['x/0/0', '-1/0/0', '0/0/1.5'])
      expect((await fetch(`${address}/api/pictures/${id}/tiles/${path}`)).status).toBe(400);
  });
});
