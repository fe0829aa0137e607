'use client';
import { Stumbled } from '@/ui/Stumbled';

/** What stands in the place of a page that has failed while it was shown. */
export default function PageError({ error, reset }: { error: Error; reset: () => void }) {
  return <Stumbled error={error} onAgain={reset} />;
}
