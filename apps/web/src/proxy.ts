/**
 * What every page goes through before it is rendered: known hosts only, and a content security policy with a nonce of its own.
 * Routes of the interface check the same in server/route.ts, where their bodies can be counted while they stream.
 */
import { type NextRequest, NextResponse } from 'next/server';
import { contentPolicy } from './server/content-policy.ts';
import { refusal } from './server/guard.ts';

export function proxy(request: NextRequest): NextResponse {
  const refused = refusal(request.method, request.headers);
  if (refused) return new NextResponse(refused.message, { status: refused.status });
  const nonce = Buffer.from(crypto.randomUUID()).toString('base64');
  const policy = contentPolicy(nonce);
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set('content-security-policy', policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('content-security-policy', policy);
  return response;
}

export const config = { matcher: ['/((?!api/|_next/static|_next/image|pdf/|icon.svg).*)'] };
