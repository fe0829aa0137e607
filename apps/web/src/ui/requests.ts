/**
 * In: what is asked of the server. Out: checked answers, or an error whose message can be shown as it is.
 */
import { type Picture, pictureSchema } from '@nuvet/core/job';
import { z } from 'zod';
import { words } from '@/words';

const problemSchema = z.object({ code: z.string(), message: z.string() });

export class RequestError extends Error {
  constructor(
    readonly code: string,
    message: string,
    /** Of the answer; 0 where there was none. */
    readonly status = 0,
  ) {
    super(message);
  }

  /** Whether the same may go well a moment later: no connection, a server that is busy, down, or cut off from its database. */
  get isPassing(): boolean {
    return this.code === 'no-connection' || this.status === 429 || this.status >= 500;
  }
}

export const noConnection = () => new RequestError('no-connection', words.ui.theServerCannotBeReached);

/** What a server between would answer for a reply that it cannot use. */
const badGateway = 502;

function refusal(body: unknown, status: number): RequestError {
  const problem = problemSchema.safeParse(body);
  return problem.success
    ? new RequestError(problem.data.code, problem.data.message, status)
    : new RequestError('our-fault', words.ui.unexpectedReplyFromTheServer, status);
}

/** @throws RequestError, with code `no-connection` where there was no answer at all; one that cannot be read may pass */
export async function ask<T>(method: 'GET' | 'POST' | 'DELETE', url: string, answer: z.ZodType<T>, body?: unknown): Promise<T> {
  const response = await fetch(url, {
    method,
    ...(body === undefined ? {} : { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }),
  }).catch(() => {
    throw noConnection();
  });
  const read: unknown = response.status === 204 ? null : await response.json().catch(() => null);
  if (!response.ok) throw refusal(read, response.status);
  const told = answer.safeParse(read);
  // Cut off on its way, or written by something between here and the server.
  if (!told.success) throw new RequestError('our-fault', words.ui.unexpectedReplyFromTheServer, badGateway);
  return told.data;
}

/** Sends bytes as they are. `onShare` hears the share sent, 0 to 1; at 1 the server still works on them. */
export function sendBytes<T>(
  address: string,
  body: Blob,
  answer: z.ZodType<T>,
  onShare: (share: number) => void,
  signal?: AbortSignal,
): Promise<T> {
  return new Promise((resolve, reject) => {
    // fetch does not tell how much of a body has gone.
    const request = new XMLHttpRequest();
    request.open('POST', address);
    request.responseType = 'json';
    request.upload.onprogress = ({ loaded, total }) => onShare(total > 0 ? loaded / total : 1);
    request.onload = () => {
      const parsed = answer.safeParse(request.response);
      if (request.status === 201 && parsed.success) resolve(parsed.data);
      else reject(refusal(request.response, request.status));
    };
    request.onerror = () => reject(noConnection());
    request.onabort = () => reject(new RequestError('stopped', words.ui.stoppedNothingWasBroughtIn));
    signal?.addEventListener('abort', () => request.abort());
    request.send(body);
  });
}

/** How a picture comes: its name, the page of a file with several, and its resolution where it is known better than the file knows it. */
export interface Sending {
  readonly name: string;
  readonly page?: number;
  readonly resolution?: { readonly dpi: number; readonly source: 'pdf' | 'scanner' };
}

/** Sends a picture file as it is. */
export function sendPicture(
  file: Blob,
  { name, page = 0, resolution }: Sending,
  onShare: (share: number) => void,
  signal?: AbortSignal,
): Promise<Picture> {
  const query = new URLSearchParams({ name: name.slice(0, 200), page: String(page) });
  if (resolution) {
    query.set('dpi', String(resolution.dpi));
    query.set('source', resolution.source);
  }
  return sendBytes(`/api/pictures?${query}`, file, pictureSchema, onShare, signal);
}
