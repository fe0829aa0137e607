'use client';
/**
 * The narrowest web and the narrowest passage of all pieces, whatever the limits are; a click shows the place.
 */
import Button from '@mui/material/Button';
import type { Piece } from '@nuvet/core/job';
import { printBoth } from '@nuvet/core/length';
import { distance, type Point } from '@nuvet/core/plane';
import { useEffect, useState } from 'react';
import { showPlaces } from '@/table/show-places';
import { Reading } from '@/ui/Section';
import { words } from '@/words';
import { maker } from '@/workers/maker.client';
import type { NarrowestPlaces } from '@/workers/maker.worker';
import { useJob } from '../../job/job-store';

const pauseMs = 400;

export function Narrowest({ pieces }: { pieces: readonly Piece[] }) {
  const unit = useJob((s) => s.job.unit);
  const [found, setFound] = useState<NarrowestPlaces | null>(null);
  useEffect(() => {
    let isWanted = true;
    setFound(null);
    const timer = setTimeout(() => {
      maker()
        .narrowest(pieces)
        .then(
          (places) => isWanted && setFound(places),
          () => {},
        );
    }, pauseMs);
    return () => {
      isWanted = false;
      clearTimeout(timer);
    };
  }, [pieces]);
  if (!found) return null;
  return (
    <>
      <Place name={words.prove.narrowestWeb} pair={found.web} unit={unit} />
      <Place name={words.prove.narrowestPassage} pair={found.passage} unit={unit} />
    </>
  );
}

function Place({ name, pair, unit }: { name: string; pair: readonly [Point, Point] | null; unit: 'mm' | 'in' }) {
  if (!pair) return null;
  const [a, b] = pair;
  const show = () => showPlaces([{ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }], 3 * distance(a, b) + 4);
  return (
    <Reading name={name}>
      <Button size="small" onClick={show}>
        {printBoth(distance(a, b), unit)}
      </Button>
    </Reading>
  );
}
