/**
 * The stand-in for a flatbed scanner: a service on the loopback address that speaks the protocol of
 * docs/scanner-protocol.md.
 */
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { pngOf } from '@nuvet/truth';
import { z } from 'zod';
import { type Bed, beds, scanBed } from './bed.ts';

const resolutions = [75, 150, 200, 300, 600];
const previewDpi = 50;
const maxBody = 10_000;

const requestSchema = z.object({
  dpi: z.number().refine((dpi) => resolutions.includes(dpi), `The resolution must be one of ${resolutions.join(', ')}.`),
  area: z
    .object({ x: z.number().min(0), y: z.number().min(0), widthMm: z.number().positive(), heightMm: z.number().positive() })
    .optional(),
});

class Refusal extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

/** The service, not yet listening. Pages of the addresses given may speak to it. */
export function scannerService(origins: readonly string[]): Server {
  return createServer(async (request, response) => {
    const { origin } = request.headers;
    if (origin && origins.includes(origin)) response.setHeader('Access-Control-Allow-Origin', origin);
    response.setHeader('Vary', 'Origin');
    try {
      if (request.method === 'OPTIONS') {
        response.setHeader('Access-Control-Allow-Methods', 'GET, POST');
        response.setHeader('Access-Control-Allow-Headers', 'Content-Type');
        response.writeHead(204).end();
        return;
      }
      // Other sites' pages may not make the scanner work, even where they could not read its answer.
      if (origin && !origins.includes(origin)) throw new Refusal(403, 'This page may not use the scanner.');
      await answer(request, response);
    } catch (error) {
      refuse(response, error);
    }
  });
}

function refuse(response: ServerResponse, error: unknown): void {
  const known = asRefusal(error);
  if (known.status === 500) console.error(error);
  if (response.headersSent) response.end();
  else sendJson(response, known.status, { message: known.message });
}

function asRefusal(error: unknown): Refusal {
  if (error instanceof Refusal) return error;
  return error instanceof z.ZodError
    ? new Refusal(400, error.issues[0]?.message ?? 'Not understood.')
    : new Refusal(500, 'The scanner failed.');
}

async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
  const path = new URL(request.url ?? '/', 'http://127.0.0.1').pathname;
  if (request.method === 'GET' && path === '/scanners') return sendJson(response, 200, { scanners: beds.map(described) });
  const [, id, deed] = /^\/scanners\/([^/]+)\/(preview|scan)$/.exec(path) ?? [];
  const bed = beds.find((b) => b.id === decodeURIComponent(id ?? ''));
  if (!bed) throw new Refusal(404, 'There is no such scanner.');
  const whole = { x: 0, y: 0, widthMm: bed.widthMm, heightMm: bed.heightMm };
  if (deed === 'preview' && request.method === 'GET') return sendPng(response, bed, previewDpi, whole);
  if (deed === 'scan' && request.method === 'POST') {
    const { dpi, area } = requestSchema.parse(await bodyOf(request));
    return sendPng(response, bed, dpi, area ?? whole);
  }
  throw new Refusal(405, 'This scanner lists, previews and scans.');
}

const described = ({ id, name, widthMm, heightMm }: Bed) => ({ id, name, bed: { widthMm, heightMm }, resolutions });

async function sendPng(response: ServerResponse, bed: Bed, dpi: number, area: Parameters<typeof scanBed>[2]): Promise<void> {
  const png = await pngOf(scanBed(bed, dpi, area), dpi);
  response.writeHead(200, { 'Content-Type': 'image/png', 'Content-Length': png.length }).end(png);
}

function sendJson(response: ServerResponse, status: number, body: unknown): void {
  response.writeHead(status, { 'Content-Type': 'application/json' }).end(JSON.stringify(body));
}

async function bodyOf(request: IncomingMessage): Promise<unknown> {
  let text = '';
  for await (const part of request) {
    text += part;
    if (text.length > maxBody) throw new Refusal(413, 'The request is too long.');
  }
  try {
    return JSON.parse(text);
  } catch {
    throw new Refusal(400, 'The request is not JSON.');
  }
}
