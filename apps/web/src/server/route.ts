/**
 * What every route handler goes through: access first, then the work, then plain answers for what went wrong.
 */
import { z } from 'zod';
import { type Deed, type Person, personWhoMay } from './access.ts';
import { Problem } from './problem.ts';

interface Asked {
  readonly person: Person;
  readonly request: Request;
  readonly params: Readonly<Record<string, string>>;
}

type Handler = (request: Request, context: { params: Promise<Record<string, string>> }) => Promise<Response>;

export function route(deed: Deed, answer: (asked: Asked) => Promise<Response>): Handler {
  return async (request, { params }) => {
    try {
      return await answer({ person: await personWhoMay(deed), request, params: await params });
    } catch (error) {
      if (error instanceof Problem) return error.response();
      if (error instanceof z.ZodError)
        return new Problem(400, 'not-understood', `This was not understood: ${z.prettifyError(error).split('\n')[0]}`).response();
      console.error(error);
      return new Problem(500, 'our-fault', 'Something went wrong here. Nothing was changed; please try again.').response();
    }
  };
}

/** A request's JSON, checked. @throws Problem 400 where it is no JSON */
export async function bodyOf<T>(request: Request, schema: z.ZodType<T>): Promise<T> {
  const body = await request.json().catch(() => {
    throw new Problem(400, 'not-understood', 'The request is not JSON.');
  });
  return schema.parse(body);
}

/** A path parameter that must be a UUID. @throws Problem 404 */
export function uuidOf(params: Asked['params'], name: string): string {
  const parsed = z.uuid().safeParse(params[name]);
  if (!parsed.success) throw new Problem(404, 'not-there', 'There is nothing at this address.');
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
