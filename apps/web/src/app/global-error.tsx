'use client';

/** The last resort, where not even the frame of the page can be shown. */
export default function GlobalError({ reset }: { reset: () => void }) {
  return (
    <html lang="en">
      <body>
        <main>
          <h1>Nuvet has stumbled</h1>
          <p>Everything that was saved is safe.</p>
          <button type="button" onClick={reset}>
            Try again
          </button>
        </main>
      </body>
    </html>
  );
}
