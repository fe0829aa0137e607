/**
 * In: a page's nonce. Out: its content security policy. Scripts run with the nonce, or where such a script loads them; WebAssembly
 * is for the tracer and the PDF reader; the scanner is the one other service that a page talks to.
 * Rests on: Content Security Policy Level 3 (W3C).
 */

export function contentPolicy(nonce: string): string {
  const scanner = process.env.NUVET_SCANNER ? ` ${new URL(process.env.NUVET_SCANNER).origin}` : '';
  return [
    `default-src 'self'`,
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' 'wasm-unsafe-eval'`,
    `style-src 'self' 'nonce-${nonce}'`,
    // Styles of single elements, which React writes into the page.
    `style-src-attr 'unsafe-inline'`,
    `img-src 'self' blob: data:${scanner}`,
    `font-src 'self' data:`,
    `connect-src 'self' blob: data:${scanner}`,
    `worker-src 'self' blob:`,
    `object-src 'none'`,
    `base-uri 'none'`,
    `form-action 'self'`,
    `frame-ancestors 'none'`,
  ].join('; ');
}
