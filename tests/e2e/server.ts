import { type Job, jobSchema } from '@nuvet/core/job';
import { type Path, polygonPath } from '@nuvet/core/plane';

/** The running application that the end-to-end tests speak to. */
export const address = process.env.NUVET_ADDRESS ?? 'http://127.0.0.1:3000';

/** Sends a picture as the page does. */
export async function sendPicture(name: string, bytes: Uint8Array): Promise<Response> {
  return fetch(`${address}/api/pictures?name=${encodeURIComponent(name)}`, { method: 'POST', body: bytes as Uint8Array<ArrayBuffer> });
}

export async function json(method: string, path: string, body?: unknown): Promise<{ status: number; body: never }> {
  const response = await fetch(`${address}${path}`, {
    method,
    ...(body === undefined ? {} : { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }),
  });
  return { status: response.status, body: (response.status === 204 ? null : await response.json()) as never };
}

/** A new job with a picture in it; its id and the picture. */
export async function jobWith(
  name: string,
  bytes: Uint8Array,
): Promise<{ id: string; picture: { id: string; widthPx: number; heightPx: number } }> {
  return jobWithFile(`${name}.png`, bytes, name);
}

/** A new job with a picture of a file's name in it. */
export async function jobWithFile(
  file: string,
  bytes: Uint8Array,
  name = file,
): Promise<{ id: string; picture: { id: string; widthPx: number; heightPx: number } }> {
  const picture = (await (await sendPicture(file, bytes)).json()) as { id: string; widthPx: number; heightPx: number };
  const { body } = await json('POST', '/api/jobs', { name, pictureIds: [picture.id] });
  return { id: (body as { id: string }).id, picture };
}

/** A job of outlines drawn by hand; its id. */
export async function jobOfOutlines(
  name: string,
  outlines: readonly { readonly name: string; readonly purpose?: string; readonly paths: readonly Path[] }[],
): Promise<string> {
  const { body } = await json('POST', '/api/jobs', { name, pictureIds: [] });
  const { id } = body as { id: string };
  const steps = outlines.map(({ name: what, purpose = 'cut', paths }, k) => ({
    step: 'do',
    command: { do: 'draw', drawn: { id: `d${k}`, name: what, purpose, leftOut: false, source: { kind: 'paths', paths }, live: [] } },
  }));
  const done = await json('POST', `/api/jobs/${id}/edits`, { base: 1, steps, wanted: false });
  if (done.status !== 200) throw new Error(`the outlines were refused: ${JSON.stringify(done.body)}`);
  return id;
}

/** A job as the server has it. */
export const jobOf = async (id: string): Promise<Job> =>
  jobSchema.parse(((await json('GET', `/api/jobs/${id}`)).body as { job: unknown }).job);

/** An upright box by its lower left corner. */
export const boxPath = (x: number, y: number, width: number, height: number): Path =>
  polygonPath([
    { x, y },
    { x: x + width, y },
    { x: x + width, y: y + height },
    { x, y: y + height },
  ]);
