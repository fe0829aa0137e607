/**
 * What a person can mend, as an error with a code and a plain message; it becomes the answer of a route.
 */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
  ) {
    super(message);
  }

  response(): Response {
    return Response.json({ code: this.code, message: this.message }, { status: this.status });
  }
}
