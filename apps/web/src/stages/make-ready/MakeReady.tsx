'use client';
/**
 * Make ready: from proved outlines to what each process of the job needs.
 */
import AddOutlined from '@mui/icons-material/AddOutlined';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import FolderZipOutlined from '@mui/icons-material/FolderZipOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { filesPanel, openProcess, useOpenProcess, useProcesses } from '@/processes/open-process';
import { panelOf, panelsOf } from '@/processes/process-on-table';
import { processViews } from '@/processes/registry';
import { sheetsIn, useLayout, useSheetInHand } from '@/processes/sheets/use-layout';
import { usePiecesToMake } from '@/processes/use-pieces-to-make';
import { usePlan } from '@/processes/use-plan';
import { ShelfDrawer } from '@/shelf/ShelfDrawer';
import { setMaking, useMaking } from '@/table/making-store';
import { Pick } from '@/ui/Rows';
import { words } from '@/words';
import { told } from '@/words/told';
import { useJob } from '../../job/job-store';
import { Docket, ToolCard } from '../Docket';
import { useFindings } from '../prove/use-proof';
import type { StageName } from '../stage';
import { AddProcess } from './AddProcess';
import { FilesPanel } from './FilesPanel';
import { MachineSection } from './MachineSection';
import { StockSection } from './StockSection';
import { useFiles } from './use-files';

export function MakeReady({ onStage, jobId, hasCutter }: { onStage: (stage: StageName) => void; jobId: string; hasCutter: boolean }) {
  const unit = useJob((s) => s.job.unit);
  const run = useJob((s) => s.run);
  const panel = useMaking((s) => s.panel);
  const [isAdding, setAdding] = useState(false);
  const [isShelfOpen, setShelfOpen] = useState(false);
  const processes = useProcesses();
  const open = useOpenProcess();
  const drawn = usePiecesToMake();
  const layout = useLayout(open, drawn);
  const pieces = useSheetInHand(layout, drawn);
  usePlan(open, pieces);
  const stop = useFindings().find((f) => f.weight === 'stops' && (!f.processIds || f.processIds.includes(open?.entry.id ?? '')));
  const files = useFiles(open, pieces, drawn, stop !== undefined);
  const shown = open && panelOf(open, panel);
  const isFiles = panel === filesPanel;
  const next = stop
    ? { word: words.makeReady.backToProve, onClick: () => onStage('prove') }
    : open
      ? {
          word: words.makeReady.downloadNext(open.kind.files[files.last]?.word ?? ''),
          disabled: !files.isReady || files.seen[files.last] === 'working',
          // Its row says how the file was read back.
          onClick: () => {
            setMaking({ panel: filesPanel });
            void files.download(files.last);
          },
        }
      : { word: words.makeReady.addAProcess, onClick: () => setAdding(true) };
  return (
    <Docket
      next={next}
      tray={
        <>
          {processes.map(({ entry, kind }) => {
            const Icon = processViews[entry.process]?.icon;
            return (
              <ToolCard
                key={entry.id}
                icon={Icon && <Icon />}
                word={kind.word}
                explanation={words.makeReady.openProcess(kind.about, entry.machine.name)}
                isInHand={entry.id === open?.entry.id}
                onClick={() => openProcess(entry.id)}
              />
            );
          })}
          <ToolCard
            icon={<AddOutlined />}
            word={words.makeReady.addAProcess}
            explanation={words.makeReady.addAProcessExplanation}
            onClick={() => setAdding(true)}
          />
        </>
      }
    >
      {stop && (
        <Alert severity="error" variant="outlined" action={<Button onClick={() => onStage('prove')}>{words.makeReady.prove}</Button>}>
          {told(stop.said, unit)}
        </Alert>
      )}
      <UnknownProcesses />
      {open ? (
        <>
          <Panels open={open} shown={isFiles ? filesPanel : (shown?.name ?? null)} />
          {layout && sheetsIn(layout) > 1 && <SheetInHand sheets={sheetsIn(layout)} />}
          {isFiles && <FilesPanel open={open} pieces={pieces} files={files} />}
          {shown && <shown.Panel open={open} pieces={pieces} jobId={jobId} hasCutter={hasCutter} isStopped={stop !== undefined} />}
          {!processViews[open.entry.process]?.hasNoMachine && (
            <>
              <StockSection onShelf={() => setShelfOpen(true)} />
              <MachineSection open={open} />
            </>
          )}
          <Button
            size="small"
            color="inherit"
            startIcon={<DeleteOutlined />}
            onClick={() => {
              run({ do: 'remove-process', id: open.entry.id });
              setMaking({ processId: null, panel: null });
            }}
          >
            {words.makeReady.removeProcess(open.kind.word)}
          </Button>
        </>
      ) : (
        <Alert severity="info" variant="outlined">
          {words.makeReady.noProcess}
        </Alert>
      )}
      <AddProcess isOpen={isAdding} onClose={() => setAdding(false)} />
      <ShelfDrawer isOpen={isShelfOpen} processId={open?.entry.id ?? null} onClose={() => setShelfOpen(false)} />
    </Docket>
  );
}

/** The panels of the open process, and its files. */
function Panels({ open, shown }: { open: NonNullable<ReturnType<typeof useOpenProcess>>; shown: string | null }) {
  const panels = panelsOf(open);
  const cards = [
    ...panels.map(({ name, word, icon: Icon, explanation }) => ({ name, word, icon: <Icon />, explanation })),
    { name: filesPanel, word: words.makeReady.files, icon: <FolderZipOutlined />, explanation: words.makeReady.filesExplanation },
  ];
  return (
    <Box
      role="group"
      aria-label={open.kind.word}
      sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, alignItems: 'center', '& > span': { flex: '1 1 88px' } }}
    >
      {cards.map(({ name, word, icon, explanation }) => (
        <ToolCard
          key={name}
          icon={icon}
          word={word}
          explanation={explanation}
          isInHand={name === shown}
          onClick={() => setMaking({ panel: name })}
        />
      ))}
    </Box>
  );
}

/** Of several sheets the one that the table shows and the machine is sent. */
function SheetInHand({ sheets }: { sheets: number }) {
  const sheet = Math.min(
    useMaking((s) => s.sheet),
    sheets - 1,
  );
  const kinds = Object.fromEntries(Array.from({ length: sheets }, (_, k) => [String(k), words.sheets.sheetOf(k + 1, sheets)]));
  return <Pick label={words.sheets.sheetInHand} value={String(sheet)} words={kinds} onPick={(k) => setMaking({ sheet: Number(k) })} />;
}

/** A job made elsewhere may have processes that are not known here. */
function UnknownProcesses() {
  const all = useJob((s) => s.job.making.processes);
  const known = useProcesses();
  return all
    .filter(({ id }) => !known.some(({ entry }) => entry.id === id))
    .map(({ id, process }) => (
      <Alert key={id} severity="info" variant="outlined">
        {words.makeReady.unknownProcess(process)}
      </Alert>
    ));
}
