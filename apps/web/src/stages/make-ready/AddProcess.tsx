'use client';
/**
 * Adds a process to the job: a card each, with a drawing and one sentence.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Typography from '@mui/material/Typography';
import { newEntry, processKinds, processNames } from '@nuvet/core/processes';
import { nanoid } from 'nanoid';
import { openProcess } from '@/processes/open-process';
import { processViews } from '@/processes/registry';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import { useJob } from '../../job/job-store';

export function AddProcess({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const add = (process: string) => {
    const entry = newEntry(nanoid(10), process, job);
    run({ do: 'add-process', entry });
    openProcess(entry.id);
    onClose();
  };
  return (
    <Dialog open={isOpen} onClose={onClose} maxWidth="md" fullWidth>
      <DialogTitle>{words.makeReady.whatToMake}</DialogTitle>
      <DialogContent>
        <Typography variant="body2" color="textSecondary" sx={{ mb: 2 }}>
          {words.makeReady.addAProcessExplanation}
        </Typography>
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(200px, 1fr))', gap: 1.5 }}>
          {processNames.map((name) => (
            <ProcessCard key={name} name={name} onClick={() => add(name)} />
          ))}
        </Box>
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          {words.makeReady.cancel}
        </Button>
      </DialogActions>
    </Dialog>
  );
}

function ProcessCard({ name, onClick }: { name: string; onClick: () => void }) {
  const { word, about, files } = processKinds[name] ?? { word: name, about: '', files: {} };
  const Icon = processViews[name]?.icon;
  return (
    <ButtonBase
      aria-label={words.makeReady.addThisProcess(word)}
      onClick={onClick}
      sx={{
        display: 'grid',
        gap: 0.75,
        alignContent: 'start',
        justifyItems: 'start',
        textAlign: 'left',
        p: 2,
        borderRadius: 2,
        border: `1px solid ${colours.line}`,
        '&:hover, &:focus-visible': { borderColor: colours.verdigris, bgcolor: colours.sheet },
      }}
    >
      <Box sx={{ color: colours.verdigris, fontSize: 44, lineHeight: 0 }}>{Icon && <Icon fontSize="inherit" />}</Box>
      <Typography variant="h3" component="span">
        {word}
      </Typography>
      <Typography variant="body2">{about}</Typography>
      <Typography variant="caption" color="textSecondary">
        {[...new Set(Object.values(files).map(({ word: file }) => file.split(',')[0]))].join(', ')}
      </Typography>
    </ButtonBase>
  );
}
