'use client';
/**
 * Files: what the machine expects, and each kind of file, read back before it is handed over.
 */
import CheckOutlined from '@mui/icons-material/CheckOutlined';
import DownloadOutlined from '@mui/icons-material/DownloadOutlined';
import FolderZipOutlined from '@mui/icons-material/FolderZipOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import CircularProgress from '@mui/material/CircularProgress';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { documentOf, type Job, overallBox, type Piece } from '@nuvet/core/job';
import { printBoth } from '@nuvet/core/length';
import { type CutPlan, type FileKind, fileKinds, fileName, fileTypes, type MadeFile } from '@nuvet/core/make';
import { heightOf, widthOf } from '@nuvet/core/plane';
import { strToU8 } from 'fflate';
import { useEffect, useState } from 'react';
import { setMaking, useMaking } from '@/table/making-store';
import { handOver } from '@/ui/hand-over';
import { NumberField } from '@/ui/NumberField';
import { words } from '@/words';
import { toldError } from '@/words/told';
import { maker } from '@/workers/making';
import { Reading, Section } from '../Docket';
import { useJob } from '../job-store';
import { rememberKind, useLastKind } from './file-kinds';
import { MachineSection } from './MachineSection';
import { usePlanned } from './use-plan';

const kinds: Record<FileKind, { word: string; about: string }> = {
  svg: { word: words.makeReady.svg, about: words.makeReady.svgExplanation },
  dxf: { word: words.makeReady.dxf, about: words.makeReady.dxfExplanation },
  pdf: { word: words.makeReady.pdf, about: words.makeReady.pdfExplanation },
  gcode: { word: words.makeReady.gCode, about: words.makeReady.gcodeExplanation },
  hpgl: { word: words.makeReady.hpgl, about: words.makeReady.hpglExplanation },
  png: { word: words.makeReady.png, about: words.makeReady.pngExplanation },
};

/** What is made of the pieces, by kind, and how each is handed over. */
export function useFiles(pieces: readonly Piece[], isStopped: boolean) {
  const job = useJob((s) => s.job);
  const revision = useJob((s) => s.revision);
  const { plan } = usePlanned();
  const [dpi, setDpi] = useState(600);
  const [seen, setSeen] = useState<Partial<Record<FileKind, MadeFile | { fault: string } | 'working'>>>({});
  const box = overallBox(pieces);
  // What was made of other outlines, or for another machine, says nothing of these.
  // biome-ignore lint/correctness/useExhaustiveDependencies: a change of any of these is what matters
  useEffect(() => setSeen({}), [pieces, job.setup, plan]);
  const isReady = !isStopped && box !== null && plan !== null;
  const machine = job.setup.machine.name;
  const last = useLastKind(machine);
  const nameOf = (kind: FileKind) =>
    nameFor(job, kind === 'gcode' || kind === 'hpgl' ? 'cut' : 'outlines', revision(), fileTypes[kind].ending);
  const make = async (kind: FileKind, by: CutPlan): Promise<MadeFile | null> => {
    setSeen((s) => ({ ...s, [kind]: 'working' }));
    try {
      const made = await maker().file(kind, pieces, job.setup, by, job.name, dpi);
      setSeen((s) => ({ ...s, [kind]: made }));
      return made;
    } catch (error) {
      setSeen((s) => ({ ...s, [kind]: { fault: toldError(error) } }));
      return null;
    }
  };
  const download = async (kind: FileKind) => {
    const made = plan && (await make(kind, plan));
    if (!made) return;
    handOver(made.bytes, nameOf(kind), fileTypes[kind].type);
    rememberKind(machine, kind);
  };
  const all = async () => {
    if (!plan) return;
    const files: { name: string; bytes: Uint8Array }[] = [];
    for (const kind of fileKinds) {
      const made = await make(kind, plan);
      if (made) files.push({ name: nameOf(kind), bytes: made.bytes });
    }
    if (files.length === 0) return;
    const bytes = await maker().zipped(files);
    handOver(bytes, nameFor(job, 'files', revision(), 'zip'), 'application/zip');
  };
  // What was asked for from elsewhere is downloaded as soon as it can be made.
  const wanted = useMaking((s) => s.wanted);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each wish
  useEffect(() => {
    if (!wanted || !isReady) return;
    setMaking({ wanted: null });
    void download(wanted);
  }, [wanted, isReady]);
  return { seen, isReady, dpi, setDpi, download, all, last, box };
}

export type Files = ReturnType<typeof useFiles>;

export const kindWord = (kind: FileKind): string => kinds[kind].word;

export function FilesPanel({ pieces, files }: { pieces: readonly Piece[]; files: Files }) {
  const job = useJob((s) => s.job);
  const revision = useJob((s) => s.revision);
  const { seen, isReady, dpi, setDpi, download, all, box } = files;
  return (
    <>
      {box && (
        <Section title={words.makeReady.atTrueSize}>
          <Reading name={words.makeReady.pieces}>{pieces.length}</Reading>
          <Reading name={words.makeReady.wide}>{printBoth(widthOf(box), job.unit)}</Reading>
          <Reading name={words.makeReady.high}>{printBoth(heightOf(box), job.unit)}</Reading>
          {job.planScale && (
            <Typography variant="caption" color="textSecondary">
              {job.planScale.atRealSize
                ? words.makeReady.atRealSize(job.planScale.text)
                : words.makeReady.asLargeAsThePlan(job.planScale.text)}
            </Typography>
          )}
        </Section>
      )}
      <Section title={words.makeReady.files}>
        {fileKinds.map((kind) => (
          <FileRow key={kind} kind={kind} seen={seen[kind]} isReady={isReady} onDownload={() => void download(kind)} />
        ))}
        <Box sx={{ mt: 1 }}>
          <NumberField
            label={words.makeReady.resolutionOfThePng}
            value={dpi}
            digits={0}
            unit={words.makeReady.dpi}
            onNumber={(n) => n >= 10 && setDpi(Math.min(2400, Math.round(n)))}
          />
        </Box>
      </Section>
      <MachineSection />
      <Section title={words.makeReady.theJobItself}>
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1 }}>
          {words.makeReady.jobFileExplanation}
        </Typography>
        <Button
          fullWidth
          variant="outlined"
          startIcon={<DownloadOutlined />}
          onClick={() =>
            handOver(strToU8(JSON.stringify(documentOf(job), null, 1)), nameFor(job, 'job', revision(), 'json'), 'application/json')
          }
        >
          {words.makeReady.downloadTheJobsDocument}
        </Button>
      </Section>
      <Section title={words.makeReady.allInOne}>
        <NamePattern />
        <Button
          fullWidth
          variant="contained"
          sx={{ mt: 1 }}
          startIcon={<FolderZipOutlined />}
          disabled={!isReady}
          onClick={() => void all()}
        >
          {words.makeReady.downloadAllAsOneZip}
        </Button>
      </Section>
    </>
  );
}

/** The day as people sort by it, in their own time. */
export const today = (): string => new Intl.DateTimeFormat('sv-SE').format(new Date());

/** A file's name by the job's pattern. */
export const nameFor = (job: Job, what: string, revision: number, ending: string): string =>
  fileName(job.setup.fileNames, { job: job.name, what, date: today(), revision }, ending);

interface FileRowProps {
  readonly kind: FileKind;
  readonly seen: MadeFile | { fault: string } | 'working' | undefined;
  readonly isReady: boolean;
  readonly onDownload: () => void;
}

function FileRow({ kind, seen, isReady, onDownload }: FileRowProps) {
  const { word, about } = kinds[kind];
  return (
    <Box
      role="group"
      aria-label={word}
      sx={{
        display: 'grid',
        gridTemplateColumns: '1fr auto',
        columnGap: 1,
        alignItems: 'center',
        py: 0.75,
        borderBottom: '1px solid',
        borderColor: 'divider',
      }}
    >
      <Box>
        <Typography variant="body2" sx={{ fontWeight: 600 }}>
          {word}
        </Typography>
        <Typography variant="caption" color="textSecondary">
          {about}
        </Typography>
      </Box>
      <Button
        size="small"
        variant="outlined"
        aria-label={words.makeReady.downloadOf(word)}
        startIcon={seen === 'working' ? <CircularProgress size={14} /> : <DownloadOutlined />}
        disabled={!isReady || seen === 'working'}
        onClick={onDownload}
      >
        {words.makeReady.download}
      </Button>
      {seen && seen !== 'working' && (
        <Box sx={{ gridColumn: '1 / -1', mt: 0.5 }}>
          {'fault' in seen ? (
            <Alert severity="error" variant="outlined">
              {seen.fault}
            </Alert>
          ) : (
            <Typography
              variant="caption"
              role="status"
              sx={{ display: 'flex', alignItems: 'center', gap: 0.5, color: 'primary.main', fontWeight: 600 }}
            >
              <CheckOutlined sx={{ fontSize: 15 }} />
              {words.makeReady.readBack(
                seen.largestMm < 0.0005 ? '0.000' : seen.largestMm.toFixed(3),
                seen.widthMm.toFixed(2),
                seen.heightMm.toFixed(2),
              )}
            </Typography>
          )}
        </Box>
      )}
    </Box>
  );
}

function NamePattern() {
  const pattern = useJob((s) => s.job.setup.fileNames);
  const run = useJob((s) => s.run);
  const [typed, setTyped] = useState(pattern);
  useEffect(() => setTyped(pattern), [pattern]);
  return (
    <TextField
      fullWidth
      label={words.makeReady.filesAreNamed}
      value={typed}
      helperText={words.makeReady.fileNameParts}
      onChange={(event) => setTyped(event.target.value.slice(0, 120))}
      onBlur={() =>
        typed.trim() ? typed.trim() !== pattern && run({ do: 'set-up', change: { fileNames: typed.trim() } }) : setTyped(pattern)
      }
      onKeyDown={(event) => {
        if (event.key === 'Enter') (event.target as HTMLInputElement).blur();
        event.stopPropagation();
      }}
      sx={{ mt: 1 }}
    />
  );
}
