'use client';
/**
 * The shelf of motifs: those that ship and the workshop's own; placed fitted to a length or a box, exchanged at the same place
 * and size, held side by side, kept from what is drawn.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type Drawn, outlinesFrom, pathSchema, piecesOf } from '@nuvet/core/job';
import { fittedMotif, type Motif, shippedMotifs } from '@nuvet/core/motif';
import { boxAroundBoxes, type Path, pathBox, polygonOf } from '@nuvet/core/plane';
import { useEffect, useState } from 'react';
import { z } from 'zod';
import { useShallow } from 'zustand/react/shallow';
import { setHand, useHand } from '@/table/hand-store';
import { newDrawn, nextName, sourceOf } from '@/table/hand-target';
import { colours } from '@/ui/colours';
import { Pick, Row } from '@/ui/Rows';
import { ask } from '@/ui/requests';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { useChosen } from './use-chosen';
import { usePlaces } from './use-places';

const motifSchema = z.object({ id: z.string(), name: z.string(), tags: z.array(z.string()), paths: z.array(pathSchema) });

/** The workshop's own motifs before those that ship; a message where they could not be had. */
function useShelf() {
  const [own, setOwn] = useState<readonly Motif[]>([]);
  const [message, setMessage] = useState<string | null>(null);
  useEffect(() => {
    void ask('GET', '/api/motifs', z.array(motifSchema)).then(setOwn, (error: Error) => setMessage(error.message));
  }, []);
  return {
    shelf: [...own, ...shippedMotifs],
    message,
    keep: async (name: string, tags: readonly string[], paths: readonly Path[]) => {
      try {
        const kept = await ask('POST', '/api/motifs', motifSchema, { name, tags, paths });
        setOwn((before) => [kept, ...before]);
        setMessage(null);
      } catch (error) {
        setMessage((error as Error).message);
      }
    },
  };
}

export function Motifs() {
  const { job, run, targets, drawn } = useChosen();
  const { asking, motif, motifFit } = useHand(useShallow((s) => ({ asking: s.asking, motif: s.motif, motifFit: s.motifFit })));
  const { shelf, message, keep } = useShelf();
  const [compared, setCompared] = useState<Motif | null>(null);
  const [wanted, setWanted] = useState('');
  const shown = shelf.filter(({ name, tags }) => [name, ...tags].some((word) => word.toLowerCase().includes(wanted.trim().toLowerCase())));
  usePlaces('motif', 2, (a, b) => {
    const made = motif && placed(motif, { kind: motifFit, a, b });
    // Two places that leave it no room are asked for again.
    if (!made) return setHand({ asking: 'motif' });
    const one = newDrawn(job, motif.name, made.source, { motif: made.motif });
    run({ do: 'draw', drawn: one });
    setHand({ chosen: [one.id] });
  });
  const placedOnes = targets.flatMap((t) => (t.drawn?.motif ? [t.drawn] : []));
  const current = placedOnes.length > 0 ? shelf.find(({ id }) => id === placedOnes[0]?.motif?.id) : undefined;
  const exchange = (next: Motif) => {
    const by = placedOnes.flatMap((one) => {
      const made = one.motif && placed(next, one.motif.fit);
      return made ? [{ ...one, ...made, name: nextName(job, next.name) }] : [];
    });
    if (by.length > 0) run({ do: 'replace-drawn', word: words.byHand.puttingThere(next.name), ids: by.map(({ id }) => id), by });
  };
  const step = (by: 1 | -1) => {
    const k = current ? shown.indexOf(current) : -1;
    const next = shown[(k + by + shown.length) % shown.length];
    if (next) exchange(next);
  };
  const take = (one: Motif) => {
    if (placedOnes.length > 0) exchange(one);
    else setHand({ motif: one, asking: 'motif', places: [], tool: null });
  };
  return (
    <Section title={words.byHand.motifs}>
      <Box sx={{ display: 'grid', gap: 1.25, pt: 0.75 }}>
        <Row>
          <Pick
            label={words.byHand.fitted}
            value={motifFit}
            words={{ between: words.byHand.toALength, box: words.byHand.intoABox }}
            onPick={(kind) => setHand({ motifFit: kind, places: [] })}
          />
          <TextField
            label={words.byHand.nameOrTag}
            value={wanted}
            onChange={(event) => setWanted(event.target.value)}
            onKeyDown={(event) => event.stopPropagation()}
          />
        </Row>
        {asking === 'motif' && motif && (
          <Typography variant="body2" role="note">
            {words.byHand.click(motif.name, motifFit)}
          </Typography>
        )}
        <Box
          component="ul"
          aria-label={words.byHand.shelf}
          sx={{ listStyle: 'none', m: 0, p: 0, display: 'grid', gridTemplateColumns: 'repeat(4, 1fr)', gap: 0.75 }}
        >
          {shown.map((one) => (
            <li key={one.id}>
              <Thumbnail motif={one} isTaken={one.id === (current ?? motif)?.id} onClick={() => take(one)} />
            </li>
          ))}
        </Box>
        {current && (
          <Row>
            <Button size="small" variant="outlined" onClick={() => step(-1)}>
              {words.byHand.before}
            </Button>
            <Button size="small" variant="outlined" onClick={() => step(1)}>
              {words.byHand.next}
            </Button>
            <Button size="small" variant="outlined" color="inherit" onClick={() => setCompared(compared ? null : current)}>
              {compared ? words.byHand.done : words.byHand.compare}
            </Button>
          </Row>
        )}
        {compared && current && (
          <Row>
            {[compared, current].map((one, k) => (
              <Thumbnail key={`${one.id}-${String(k)}`} motif={one} isLarge isTaken={one.id === current.id} onClick={() => exchange(one)} />
            ))}
          </Row>
        )}
        {message && (
          <Typography variant="body2" color="error" role="alert">
            {message}
          </Typography>
        )}
        {targets.length > 0 && (
          <Keep
            initial={drawn?.name ?? 'Motif'}
            onKeep={(name, tags) => void keep(name, tags, pathsOfChosen(targets.map((t) => t.pieceId)))}
          />
        )}
      </Box>
    </Section>
  );

  function pathsOfChosen(ids: readonly string[]): Path[] {
    return ids.flatMap((id) => {
      const own = job.drawn.find((d) => d.id === id);
      if (own) return [...outlinesFrom(own, job).paths];
      return piecesOf(job).filter((p) => p.id === id).flatMap(({ outer, holes }) => [outer, ...holes]); // biome-ignore format: one line
    });
  }
}

/** A motif fitted, as a drawn thing is told; null where the places leave no room. */
function placed(motif: Motif, fit: NonNullable<Drawn['motif']>['fit']): Pick<Drawn, 'source' | 'motif'> | null {
  try {
    return { source: sourceOf(fittedMotif(motif.paths, fit)), motif: { id: motif.id, fit } };
  } catch {
    return null;
  }
}

/** What is chosen kept as a motif, with a name and tags. */
function Keep({ initial, onKeep }: { initial: string; onKeep: (name: string, tags: string[]) => void }) {
  const [name, setName] = useState(initial);
  const [tags, setTags] = useState('');
  useEffect(() => setName(initial), [initial]);
  return (
    <>
      <Row>
        <TextField
          label={words.byHand.keepItAs}
          value={name}
          onChange={(event) => setName(event.target.value)}
          onKeyDown={(event) => event.stopPropagation()}
        />
        <TextField
          label={words.byHand.tags}
          placeholder={words.byHand.riverBorder}
          value={tags}
          onChange={(event) => setTags(event.target.value)}
          onKeyDown={(event) => event.stopPropagation()}
        />
      </Row>
      <Button
        size="small"
        variant="outlined"
        disabled={name.trim() === ''}
        onClick={() => onKeep(name.trim(), tags.split(',').map((tag) => tag.trim()).filter(Boolean))} // biome-ignore format: one line
      >
        {words.byHand.saveToTheMotifShelf}
      </Button>
    </>
  );
}

function Thumbnail({
  motif,
  isTaken,
  isLarge = false,
  onClick,
}: {
  motif: Motif;
  isTaken: boolean;
  isLarge?: boolean;
  onClick: () => void;
}) {
  const box = boxAroundBoxes(motif.paths.map(pathBox));
  if (!box) return null;
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const size = Math.max(width, height) * 1.12 || 1;
  const [x, y] = [box.minX - (size - width) / 2, -box.maxY - (size - height) / 2];
  const d = motif.paths.map((path) => `M${polygonOf(path, size / 400).map((p) => `${p.x.toFixed(2)} ${(-p.y).toFixed(2)}`).join('L')}${path.closed ? 'Z' : ''}`).join(''); // biome-ignore format: one line
  return (
    <Box
      component="button"
      type="button"
      aria-label={motif.name}
      aria-pressed={isTaken}
      title={words.byHand.motifSize(motif.name, width.toFixed(1), height.toFixed(1))}
      onClick={onClick}
      sx={{
        all: 'unset',
        boxSizing: 'border-box',
        width: '100%',
        aspectRatio: '1',
        cursor: 'pointer',
        borderRadius: 1,
        border: `${isTaken ? 2 : 1}px solid ${isTaken ? colours.verdigris : colours.line}`,
        '&:hover': { bgcolor: 'rgba(30, 123, 107, 0.06)' },
        '&:focus-visible': { outline: `2px solid ${colours.verdigris}` },
      }}
    >
      <svg viewBox={`${x} ${y} ${size} ${size}`} width="100%" height="100%" aria-hidden="true">
        <path
          d={d}
          fill="rgba(30, 123, 107, 0.22)"
          fillRule="evenodd"
          stroke={colours.verdigris}
          strokeWidth={size / (isLarge ? 90 : 45)}
        />
      </svg>
    </Box>
  );
}
