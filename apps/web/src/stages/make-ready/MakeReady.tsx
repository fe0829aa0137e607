'use client';
/**
 * Make ready: from proved outlines to what a machine, a printer or the folding table needs.
 */
import ContentCutOutlined from '@mui/icons-material/ContentCutOutlined';
import FolderZipOutlined from '@mui/icons-material/FolderZipOutlined';
import PrecisionManufacturingOutlined from '@mui/icons-material/PrecisionManufacturingOutlined';
import PrintOutlined from '@mui/icons-material/PrintOutlined';
import ViewInArOutlined from '@mui/icons-material/ViewInArOutlined';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import type { ReactNode } from 'react';
import { type MakingTray, setMaking, useMaking } from '@/table/making-store';
import { words } from '@/words';
import { told } from '@/words/told';
import { Docket, ToolCard } from '../Docket';
import { useJob } from '../job-store';
import { useFindings } from '../prove/use-proof';
import type { StageName } from '../stage';
import { CutPanel } from './CutPanel';
import { CutterPanel } from './CutterPanel';
import { FilesPanel, kindWord, useFiles } from './FilesPanel';
import { FoldPanel } from './FoldPanel';
import { PrintPanel } from './PrintPanel';
import { usePiecesToMake, usePlan } from './use-plan';

const trays: { readonly name: MakingTray; readonly word: string; readonly icon: ReactNode; readonly explanation: string }[] = [
  { name: 'cut', word: words.makeReady.cut, icon: <ContentCutOutlined />, explanation: words.makeReady.kerfOrderBridgesPowerAndSpeed },
  { name: 'files', word: words.makeReady.files, icon: <FolderZipOutlined />, explanation: words.makeReady.svgDxfPdfGCodeHpgl },
  { name: 'print', word: words.makeReady.print, icon: <PrintOutlined />, explanation: words.makeReady.fullSizeOnSheetsOfPaper },
  { name: 'fold', word: words.makeReady.fold, icon: <ViewInArOutlined />, explanation: words.makeReady.foldADieLineUpAnd },
  {
    name: 'cutter',
    word: words.makeReady.cutter,
    icon: <PrecisionManufacturingOutlined />,
    explanation: words.makeReady.sendItToTheCutterAnd,
  },
];

export function MakeReady({ onStage, jobId, hasCutter }: { onStage: (stage: StageName) => void; jobId: string; hasCutter: boolean }) {
  const tray = useMaking((s) => s.tray);
  const unit = useJob((s) => s.job.unit);
  const pieces = usePiecesToMake();
  usePlan(pieces);
  const stop = useFindings().find((f) => f.weight === 'stops');
  const files = useFiles(pieces, stop !== undefined);
  const word = kindWord(files.last);
  const next = stop
    ? { word: words.makeReady.backToProve, onClick: () => onStage('prove') }
    : {
        word: words.makeReady.downloadNext(word),
        disabled: !files.isReady || files.seen[files.last] === 'working',
        // Its row says how the file was read back.
        onClick: () => {
          setMaking({ tray: 'files' });
          void files.download(files.last);
        },
      };
  return (
    <Docket
      next={next}
      tray={trays.map(({ name, word, icon, explanation }) => (
        <ToolCard
          key={name}
          icon={icon}
          word={word}
          explanation={explanation}
          isInHand={tray === name}
          onClick={() => setMaking({ tray: name })}
        />
      ))}
    >
      {stop && (
        <Alert severity="error" variant="outlined" action={<Button onClick={() => onStage('prove')}>{words.makeReady.prove}</Button>}>
          {told(stop.said, unit)}
        </Alert>
      )}
      {tray === 'cut' && <CutPanel pieces={pieces} />}
      {tray === 'files' && <FilesPanel pieces={pieces} files={files} />}
      {tray === 'print' && <PrintPanel pieces={pieces} isStopped={stop !== undefined} />}
      {tray === 'fold' && <FoldPanel pieces={pieces} />}
      {tray === 'cutter' && <CutterPanel pieces={pieces} jobId={jobId} hasCutter={hasCutter} isStopped={stop !== undefined} />}
    </Docket>
  );
}
