/**
 * Requests as the interface's own pages make them, handed to the very handlers that the server runs.
 */
type Handler = (request: Request, context: { params: Promise<Record<string, string>> }) => Promise<Response>;

export interface Asked {
  readonly path?: string;
  readonly params?: Record<string, string>;
  readonly headers?: Record<string, string>;
  readonly body?: BodyInit | object;
}

const host = '127.0.0.1:3000';

/** What a handler answers: its status, headers and JSON. */
export async function answer(
  handler: Handler,
  method: string,
  { path = '/', params = {}, headers = {}, body }: Asked = {},
): Promise<{ status: number; headers: Headers; body: never }> {
  const isPlain = body !== undefined && Object.getPrototypeOf(body) === Object.prototype;
  const request = new Request(`http://${host}${path}`, {
    method,
    headers: { Host: host, ...(isPlain ? { 'Content-Type': 'application/json' } : {}), ...headers },
    ...(body === undefined ? {} : { body: isPlain ? JSON.stringify(body) : (body as BodyInit) }),
    ...(body instanceof ReadableStream ? { duplex: 'half' } : {}),
  } as RequestInit);
  const response = await handler(request, { params: Promise.resolve(params) });
  const text = await response.text();
  return {
    status: response.status,
    headers: response.headers,
    body: (text && /json/.test(response.headers.get('content-type') ?? '') ? JSON.parse(text) : text) as never,
  };
}
