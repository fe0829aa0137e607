'use client';
/**
 * Which pages of a file with several to bring in, and for a PDF at what resolution.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useEffect, useState } from 'react';
import { colours } from '@/ui/colours';
import { words } from '@/words';

export interface PageRequest {
  readonly name: string;
  readonly kind: 'pdf' | 'tiff';
  readonly pages: readonly { readonly size: string }[];
  /** A small picture of a page, as an address. */
  readonly thumbnail: ((page: number) => Promise<string | null>) | null;
  /** Null where nothing is to be brought in. */
  readonly answer: { readonly pages: readonly number[]; readonly dpi: number } | null;
}

const resolutions = [150, 200, 300, 400, 600];
/** More pages than this are taken by their numbers. */
const maxShown = 24;

export function PageChooser({ request, onAnswer }: { request: PageRequest; onAnswer: (answer: PageRequest['answer']) => void }) {
  const { pages } = request;
  const [chosen, setChosen] = useState<readonly number[]>([0]);
  const [typed, setTyped] = useState('1');
  const [dpi, setDpi] = useState(300);
  const thumbnails = useThumbnails(request);
  const choose = (next: readonly number[]) => {
    setChosen(next);
    setTyped(asText(next));
  };
  const parsed = pagesFrom(typed, pages.length);
  return (
    <Box
      role="group"
      aria-label={words.bringIn.pages}
      sx={{ display: 'grid', gap: 1.5, p: 1.5, border: `1px solid ${colours.line}`, borderRadius: 2, bgcolor: 'background.paper' }}
    >
      <Typography variant="body2">{words.bringIn.has(request.name, pages.length)}</Typography>
      {pages.length > 1 && (
        <>
          <Box
            sx={{
              display: 'grid',
              gridTemplateColumns: 'repeat(auto-fill, minmax(86px, 1fr))',
              gap: 0.75,
              maxHeight: 300,
              overflowY: 'auto',
            }}
          >
            {pages.slice(0, maxShown).map((page, k) => {
              const isChosen = chosen.includes(k);
              return (
                <Box
                  // biome-ignore lint/suspicious/noArrayIndexKey: a page is its place
                  key={k}
                  component="button"
                  aria-pressed={isChosen}
                  aria-label={words.bringIn.page(k + 1)}
                  onClick={() => choose(isChosen ? chosen.filter((c) => c !== k) : [...chosen, k].sort((a, b) => a - b))}
                  sx={{
                    font: 'inherit',
                    fontSize: 12,
                    p: 0.5,
                    cursor: 'pointer',
                    borderRadius: 1,
                    border: `2px solid ${isChosen ? colours.verdigris : colours.line}`,
                    bgcolor: isChosen ? 'rgba(30, 123, 107, 0.1)' : 'transparent',
                    color: 'text.primary',
                  }}
                >
                  {thumbnails[k] && (
                    <Box
                      component="img"
                      src={thumbnails[k]}
                      alt=""
                      sx={{ maxWidth: '100%', maxHeight: 90, display: 'block', mx: 'auto', mb: 0.5 }}
                    />
                  )}
                  {k + 1}
                  <Box sx={{ color: 'text.secondary', fontSize: 11 }}>{page.size}</Box>
                </Box>
              );
            })}
          </Box>
          <TextField
            label={words.bringIn.pagesToBringIn}
            value={typed}
            error={!parsed}
            helperText={parsed ? words.bringIn.pagesChosen(parsed.length, pages.length) : words.bringIn.pagesWanted(pages.length)}
            onChange={(event) => {
              setTyped(event.target.value);
              const next = pagesFrom(event.target.value, pages.length);
              if (next) setChosen(next);
            }}
          />
        </>
      )}
      {request.kind === 'pdf' && (
        <TextField select label={words.bringIn.resolution} value={dpi} onChange={(event) => setDpi(Number(event.target.value))}>
          {resolutions.map((r) => (
            <MenuItem key={r} value={r}>
              {words.bringIn.dpi(r)}
            </MenuItem>
          ))}
        </TextField>
      )}
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button variant="contained" disabled={!parsed || chosen.length === 0} onClick={() => onAnswer({ pages: chosen, dpi })}>
          {words.bringIn.bringIn}
        </Button>
        <Button onClick={() => onAnswer(null)}>{words.bringIn.leaveIt}</Button>
      </Box>
    </Box>
  );
}

function useThumbnails({ thumbnail, pages }: PageRequest): readonly string[] {
  const [made, setMade] = useState<readonly string[]>([]);
  useEffect(() => {
    if (!thumbnail || pages.length < 2) return;
    let isWanted = true;
    const addresses: string[] = [];
    void (async () => {
      for (let k = 0; k < Math.min(maxShown, pages.length) && isWanted; k++) {
        const address = await thumbnail(k).catch(() => null);
        addresses[k] = address ?? '';
        if (isWanted) setMade([...addresses]);
      }
    })();
    return () => {
      isWanted = false;
      for (const address of addresses) if (address) URL.revokeObjectURL(address);
    };
  }, [thumbnail, pages]);
  return made;
}

/** "1, 3-5" for the pages 0, 2, 3, 4. */
function asText(pages: readonly number[]): string {
  const parts: string[] = [];
  for (let k = 0; k < pages.length; ) {
    let end = k;
    while (pages[end + 1] === (pages[end] as number) + 1) end++;
    const [a, b] = [(pages[k] as number) + 1, (pages[end] as number) + 1];
    parts.push(a === b ? String(a) : `${a}-${b}`);
    k = end + 1;
  }
  return parts.join(', ');
}

const maxAtOnce = 50;

/** Null where the text names no pages, or none that exist. */
function pagesFrom(text: string, count: number): number[] | null {
  const found = new Set<number>();
  for (const part of text.split(',')) {
    const range = /^\s*(\d+)\s*(?:-\s*(\d+)\s*)?$/.exec(part);
    if (!range) return null;
    const [from, to] = [Number(range[1]), Number(range[2] ?? range[1])];
    if (from < 1 || to > count || to < from || to - from >= maxAtOnce) return null;
    for (let page = from; page <= to; page++) found.add(page - 1);
  }
  return found.size > 0 && found.size <= maxAtOnce ? [...found].sort((a, b) => a - b) : null;
}
