'use client';
/**
 * Says where the shelf has another material or machine by now than the job's copy, and takes it over if asked.
 */
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import { printBoth } from '@nuvet/core/length';
import { keepOwnCommand, type Newer, newerOnShelf, stockFrom, takeOverCommand } from '@nuvet/core/shelf';
import { useShelf } from '@/shelf/shelf-store';
import { words } from '@/words';
import { useJob } from '../../job/job-store';

/** @param of the stock, or the id of the process whose machine it is */
export function NewerOnShelf({ of }: { of: 'stock' | (string & {}) }) {
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const items = useShelf().items ?? [];
  const found = newerOnShelf(job, items).filter(({ entry }) => (entry?.id ?? 'stock') === of);
  return found.map((newer) => (
    <Alert key={newer.item.id} severity="info" variant="outlined">
      {told(newer, job.unit)}
      <br />
      <Button size="small" onClick={() => run(takeOverCommand(newer, job, items))}>
        {words.makeReady.takeItOver}
      </Button>
      <Button size="small" color="inherit" onClick={() => run(keepOwnCommand(newer))}>
        {words.makeReady.keepAsItIs}
      </Button>
    </Alert>
  ));
}

function told({ item, entry }: Newer, unit: 'mm' | 'in'): string {
  if (entry !== null) return words.makeReady.newerMachine(item.value.name);
  const { thicknessMm } = stockFrom(item);
  return words.makeReady.newerStock(
    item.value.name,
    thicknessMm === null ? words.makeReady.thicknessNotKnown : printBoth(thicknessMm, unit),
  );
}
