/**
 * What a person can be told: a status, a code for the page, and a plain message. Thrown anywhere on the server, it becomes the
 * answer of a route.
 */
export class HttpError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    /** After how many seconds it is worth another try. */
    readonly retryAfterS?: number,
  ) {
    super(message);
  }

  response(): Response {
    const headers = this.retryAfterS === undefined ? undefined : { 'Retry-After': String(this.retryAfterS) };
    return Response.json({ code: this.code, message: this.message }, { status: this.status, headers });
  }
}
