/**
 * What every route handler goes through: whether the request is one of our own pages', access, then the work, then plain answers for
 * what went wrong.
 */
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { z } from 'zod';
import { words } from '../words/index.ts';
import { type Permission, type Person, requirePermission } from './access.ts';
import { asHttpError } from './failure.ts';
import { refusal } from './guard.ts';
import { HttpError } from './http-error.ts';

interface RequestContext {
  readonly person: Person;
  readonly request: Request;
  readonly params: Readonly<Record<string, string>>;
}

type Handler = (request: Request, context: { params: Promise<Record<string, string>> }) => Promise<Response>;

/** Things are made by hand: nobody makes more than this in ten seconds. */
const makingLimit = new RateLimiterMemory({ points: 300, duration: 10 });
const making: readonly Permission[] = ['make-job', 'add-picture', 'keep-motif', 'edit-shelf'];

export function route(permission: Permission, answer: (asked: RequestContext) => Promise<Response>): Handler {
  return async (request, { params }) => {
    try {
      const refused = refusal(request.method, request.headers);
      if (refused) throw refused;
      const person = await requirePermission(permission);
      if (making.includes(permission)) await withinLimit(person);
      return guarded(await answer({ person, request, params: await params }));
    } catch (error) {
      return guarded(asHttpError(error).response());
    }
  };
}

async function withinLimit({ workshopId }: Person): Promise<void> {
  await makingLimit.consume(workshopId).catch(() => {
    throw new HttpError(429, 'too-many-requests', words.server.tooManyRequestsAtOncePlease, 10);
  });
}

/** What is answered is for our own pages, and for no cache unless it says so. */
function guarded(response: Response): Response {
  response.headers.set('Cross-Origin-Resource-Policy', 'same-origin');
  response.headers.set('Content-Security-Policy', `default-src 'none'; style-src 'unsafe-inline'; frame-ancestors 'none'; sandbox`);
  if (!response.headers.has('Cache-Control')) response.headers.set('Cache-Control', 'no-store');
  return response;
}

/** A few fields, or a few hundred edits. */
const plainBytes = 1e6;

/**
 * A request's JSON, checked.
 * @param maxBytes counted while it streams: a longer body is not read to its end
 * @throws Problem 400 where it is no JSON; 413 where it is longer; 415 where it does not say that it is JSON
 */
export async function bodyOf<T>(request: Request, schema: z.ZodType<T>, maxBytes = plainBytes): Promise<T> {
  if (!/^application\/json\s*(;|$)/i.test(request.headers.get('content-type') ?? ''))
    throw new HttpError(415, 'not-json', words.server.theRequestMustBeJsonContent);
  const text = await textWithin(request, maxBytes);
  let body: unknown;
  try {
    body = JSON.parse(text);
  } catch {
    throw new HttpError(400, 'not-understood', words.server.theRequestIsNotJson);
  }
  return schema.parse(body);
}

async function textWithin(request: Request, maxBytes: number): Promise<string> {
  const tooLarge = new HttpError(413, 'too-large', words.server.theRequestIsLargerThanMb(maxBytes / 1e6));
  if (Number(request.headers.get('content-length') ?? 0) > maxBytes) throw tooLarge;
  const parts: Uint8Array[] = [];
  let count = 0;
  for await (const part of (request.body ?? []) as AsyncIterable<Uint8Array>) {
    count += part.length;
    if (count > maxBytes) throw tooLarge;
    parts.push(part);
  }
  return Buffer.concat(parts).toString('utf8');
}

/** A path parameter that must be a UUID. @throws Problem 404 */
export function uuidOf(params: RequestContext['params'], name: string): string {
  const parsed = z.uuid().safeParse(params[name]);
  if (!parsed.success) throw new HttpError(404, 'not-there', words.server.thereIsNothingAtThisAddress);
  return parsed.data;
}

/** Raw pixels of a picture: too large for a browser's cache, where two readers of one address would hinder each other. */
export const pixelResponse = (pixels: Uint8Array): Response =>
  new Response(pixels as Uint8Array<ArrayBuffer>, {
    headers: {
      'Content-Type': 'application/octet-stream',
      'Content-Length': String(pixels.length),
      'Cache-Control': 'no-store',
    },
  });
