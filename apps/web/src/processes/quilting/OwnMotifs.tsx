'use client';
/** Motifs of one's own: stitch lines that are drawn in the job are kept together under a name, and fitted where it is asked for. */
import AddOutlined from '@mui/icons-material/AddOutlined';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import IconButton from '@mui/material/IconButton';
import Typography from '@mui/material/Typography';
import type { Piece } from '@nuvet/core/job';
import { mostOwnMotifs, type QuiltingSettings } from '@nuvet/core/quilting';
import { useState } from 'react';
import { Pick } from '@/ui/Rows';
import { words } from '@/words';

const say = words.quilting;

interface Props {
  readonly settings: QuiltingSettings;
  readonly set: (change: Partial<QuiltingSettings>) => void;
  readonly pieces: readonly Piece[];
}

export function OwnMotifs({ settings, set, pieces }: Props) {
  const { ownMotifs, line } = settings;
  const [chosen, setChosen] = useState<readonly string[] | null>(null);
  const taken = new Set(ownMotifs.flatMap(({ pieceIds }) => pieceIds));
  const free = pieces.filter(({ id, purpose, leftOut }) => purpose === 'stitch' && !leftOut && !taken.has(id));
  const keep = () => {
    const pieceIds = free.filter(({ id }) => chosen?.includes(id)).map(({ id }) => id);
    const name = free.find(({ id }) => id === pieceIds[0])?.name ?? say.motifNamed(ownMotifs.length + 1);
    set({ ownMotifs: [...ownMotifs, { name: name.slice(0, 60), pieceIds }], line: { ...line, ownMotif: ownMotifs.length } });
    setChosen(null);
  };
  return (
    <Box sx={{ display: 'grid', gap: 1 }}>
      {ownMotifs.length > 0 && (
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr auto', gap: 1 }}>
          <Pick
            label={say.motif}
            value={String(Math.min(line.ownMotif, ownMotifs.length - 1))}
            words={Object.fromEntries(ownMotifs.map(({ name }, k) => [String(k), name]))}
            onPick={(word) => set({ line: { ...line, ownMotif: Number(word) } })}
          />
          <IconButton
            aria-label={say.removeMotif(ownMotifs[line.ownMotif]?.name ?? '')}
            onClick={() => set({ ownMotifs: ownMotifs.filter((_, k) => k !== line.ownMotif), line: { ...line, ownMotif: 0 } })}
          >
            <DeleteOutlined fontSize="small" />
          </IconButton>
        </Box>
      )}
      {chosen === null ? (
        <>
          {free.length === 0 && (
            <Typography variant="caption" color="textSecondary">
              {say.noMotifLines}
            </Typography>
          )}
          {free.length > 0 && ownMotifs.length < mostOwnMotifs && (
            <Button size="small" startIcon={<AddOutlined />} onClick={() => setChosen([])} sx={{ justifySelf: 'start' }}>
              {say.addMotif}
            </Button>
          )}
        </>
      ) : (
        <Box>
          {free.slice(0, mostListed).map(({ id, name }) => (
            <FormControlLabel
              key={id}
              sx={{ display: 'flex' }}
              control={
                <Checkbox
                  size="small"
                  checked={chosen.includes(id)}
                  onChange={(_, isOn) => setChosen(isOn ? [...chosen, id] : chosen.filter((one) => one !== id))}
                />
              }
              label={name}
            />
          ))}
          <Button size="small" variant="outlined" disabled={chosen.length === 0} onClick={keep}>
            {say.keepMotif}
          </Button>
          <Button size="small" onClick={() => setChosen(null)}>
            {words.makeReady.cancel}
          </Button>
        </Box>
      )}
    </Box>
  );
}
const mostListed = 40;
