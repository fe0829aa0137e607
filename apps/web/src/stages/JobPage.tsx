'use client';
/**
 * One job: top bar, docket, light table, rule bar.
 */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { fitOf, type Picture } from '@nuvet/core/job';
import dynamic from 'next/dynamic';
import { useEffect, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import type { OpenedJob } from '@/server/jobs';
import { RuleBar } from '@/table/RuleBar';
import { setTable, takeTool, useTable } from '@/table/table-store';
import { wholeSheet } from '@/table/view';
import { PictureDrop, type PictureDropState } from '@/ui/PictureDrop';
import { colours } from '@/ui/theme';
import { BringIn } from './bring-in/BringIn';
import { createJobStore, JobStoreContext, useJob } from './job-store';
import { MakeReady } from './make-ready/MakeReady';
import { Prove } from './prove/Prove';
import { type StageName, stages } from './stage';
import { TopBar } from './TopBar';
import { Trace } from './trace/Trace';
import { TrueUp } from './true-up/TrueUp';

// The canvas library reaches for the browser as soon as it is loaded.
const LightTable = dynamic(() => import('@/table/LightTable'), { ssr: false });

export function JobPage({ opened }: { opened: OpenedJob }) {
  const [store] = useState(() => createJobStore(opened));
  return (
    <JobStoreContext value={store}>
      <Bench />
    </JobStoreContext>
  );
}

const stageInAddress = (): StageName | null => {
  const name = new URLSearchParams(window.location.search).get('stage');
  return stages.find((s) => s === name) ?? null;
};

function useStage(picture: Picture | null): [StageName, (stage: StageName) => void] {
  const [stage, setStage] = useState<StageName>(picture ? 'true-up' : 'bring-in');
  useEffect(() => {
    const asked = stageInAddress();
    if (asked) setStage(asked);
    setTable({ view: null, selectedEnd: null, selectedPiece: null, hoveredPiece: null, preview: null, asked: null, opacity: null });
    takeTool(null);
  }, []);
  const go = (next: StageName) => {
    setStage(next);
    takeTool(null);
    setTable({ hoveredPiece: null, selectedPiece: null, selectedEnd: null });
    // Kept in the address, so that a reload comes back to it.
    window.history.replaceState(null, '', `?stage=${next}`);
  };
  return [stage, go];
}

function Bench() {
  const picture = useJob((s) => s.job.pictures[0] ?? null);
  const { run, undo, redo } = { run: useJob((s) => s.run), undo: useJob((s) => s.undo), redo: useJob((s) => s.redo) };
  const [stage, onStage] = useStage(picture);
  useHotkeys('mod+z', undo, { preventDefault: true });
  useHotkeys('mod+shift+z, mod+y', redo, { preventDefault: true });
  useHotkeys('1,2,3,4,5', (_, { keys }) => {
    const wanted = stages[Number(keys?.join('')) - 1];
    if (wanted && (picture || wanted === 'bring-in')) onStage(wanted);
  });
  useHotkeys('0', () => picture && setTable({ view: wholeSheet(fitOf(picture), useTable.getState().screen) }));
  return (
    <PictureDrop
      invitation={picture ? 'Drop to put this picture in place of the one here' : 'Drop the picture on the table'}
      onPicture={(brought) => {
        run({ do: 'bring-in', picture: brought });
        onStage('bring-in');
      }}
    >
      {(drop) => (
        <Box
          sx={{
            display: 'grid',
            height: '100vh',
            gridTemplateColumns: '340px minmax(0, 1fr)',
            gridTemplateRows: 'auto auto minmax(0, 1fr) auto',
          }}
        >
          <TopBar stage={stage} onStage={onStage} />
          <Messages />
          <StageDocket stage={stage} picture={picture} drop={drop} onStage={onStage} />
          {picture ? <LightTable picture={picture} stage={stage} /> : <EmptyTable drop={drop} />}
          <RuleBar picture={picture} />
        </Box>
      )}
    </PictureDrop>
  );
}

function StageDocket({
  stage,
  picture,
  drop,
  onStage,
}: {
  stage: StageName;
  picture: Picture | null;
  drop: PictureDropState;
  onStage: (stage: StageName) => void;
}) {
  if (!picture || stage === 'bring-in') return <BringIn picture={picture} drop={drop} onStage={onStage} />;
  if (stage === 'true-up') return <TrueUp picture={picture} onStage={onStage} />;
  if (stage === 'trace') return <Trace picture={picture} onStage={onStage} />;
  return stage === 'prove' ? <Prove onStage={onStage} /> : <MakeReady onStage={onStage} />;
}

function EmptyTable({ drop }: { drop: PictureDropState }) {
  return (
    <Box sx={{ display: 'grid', placeItems: 'center', bgcolor: colours.ground }}>
      <Box sx={{ display: 'grid', gap: 2, justifyItems: 'center', border: `2px dashed ${colours.line}`, borderRadius: 3, p: 6 }}>
        <Typography variant="h2">Drop a scan or photo here</Typography>
        <Typography color="textSecondary">PNG or JPEG, up to 100 megapixels. It stays as it is.</Typography>
        <Button variant="outlined" onClick={drop.choose} disabled={drop.busy}>
          Choose a picture
        </Button>
      </Box>
    </Box>
  );
}

/** What needs a word across the whole page: a change in another window, a refused edit. */
function Messages() {
  const { saving, message, dismiss, takeNewest } = {
    saving: useJob((s) => s.saving),
    message: useJob((s) => s.message),
    dismiss: useJob((s) => s.dismiss),
    takeNewest: useJob((s) => s.takeNewest),
  };
  const isElsewhere = saving === 'changed-elsewhere';
  return (
    <Box sx={{ gridColumn: '1 / -1' }}>
      {isElsewhere || saving === 'refused' ? (
        <Alert
          severity="error"
          square
          action={
            <>
              <Button color="inherit" onClick={() => void takeNewest(true)}>
                Load it and do mine again
              </Button>
              <Button color="inherit" onClick={() => void takeNewest(false)}>
                Load it without mine
              </Button>
            </>
          }
        >
          {isElsewhere
            ? 'This job was changed in another window. What you did here since then is not saved yet.'
            : `The last change was not saved: ${message}`}
        </Alert>
      ) : message ? (
        <Alert severity="warning" square onClose={dismiss}>
          {message}
        </Alert>
      ) : null}
    </Box>
  );
}
