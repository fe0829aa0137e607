/**
 * In: a request's method and headers. Out: why it is refused before anything is done for it, or null. Nuvet serves its own pages and
 * nobody else's: a page of another site may neither make it write (cross-site request forgery) nor, by a name of its own that points
 * here, read what it answers (DNS rebinding).
 * Rests on: Fetch Metadata request headers (W3C), Origin (RFC 6454), Host (RFC 9110, 7.2).
 */

import { words } from '../words/index.ts';
import { HttpError } from './http-error.ts';

/** Names that the server answers to beside those of this machine: NUVET_HOSTS, with commas between. */
const ownHosts = (): readonly string[] => [
  'localhost',
  '127.0.0.1',
  '[::1]',
  ...(process.env.NUVET_HOSTS ?? '').split(',').flatMap((name) => (name.trim() ? [name.trim().toLowerCase()] : [])),
];

const nameOf = (host: string): string => host.toLowerCase().replace(/:\d+$/, '');
const isRead = (method: string): boolean => method === 'GET' || method === 'HEAD';

/** @returns a Problem 403 or 421, or null where the request may go on */
export function refusal(method: string, headers: Headers): HttpError | null {
  const host = headers.get('host') ?? '';
  if (!ownHosts().includes(nameOf(host))) return new HttpError(421, 'unknown-host', words.server.nuvetIsNotServedUnderThis);
  if (isRead(method)) return null;
  const origin = headers.get('origin');
  const site = headers.get('sec-fetch-site');
  const isOwn = origin === null ? site === null || site === 'same-origin' || site === 'none' : isSame(origin, host);
  return isOwn && (site === null || site === 'same-origin' || site === 'none')
    ? null
    : new HttpError(403, 'other-origin', words.server.thisRequestCameFromAnotherPage);
}

function isSame(origin: string, host: string): boolean {
  try {
    return new URL(origin).host === host.toLowerCase();
  } catch {
    return false;
  }
}
