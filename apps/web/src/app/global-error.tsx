'use client';
import { words } from '@/words';

/** The last resort, where not even the frame of the page can be shown. */
export default function GlobalError({ reset }: { reset: () => void }) {
  return (
    <html lang="en">
      <body>
        <main>
          <h1>{words.app.nuvetHasStumbled}</h1>
          <p>{words.app.everythingThatWasSavedIsSafe}</p>
          <button type="button" onClick={reset}>
            {words.app.tryAgain}
          </button>
        </main>
      </body>
    </html>
  );
}
