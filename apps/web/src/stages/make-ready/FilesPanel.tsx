'use client';
/**
 * Files: each kind that the process has, read back before it is handed over, and the set that its machine gets.
 */
import CheckOutlined from '@mui/icons-material/CheckOutlined';
import DownloadOutlined from '@mui/icons-material/DownloadOutlined';
import FolderZipOutlined from '@mui/icons-material/FolderZipOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import CircularProgress from '@mui/material/CircularProgress';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { documentOf, makeOf, overallBox, type Piece } from '@nuvet/core/job';
import { printBoth } from '@nuvet/core/length';
import { heightOf, widthOf } from '@nuvet/core/plane';
import { meaningOf, type ProcessFile } from '@nuvet/core/processes';
import { strToU8 } from 'fflate';
import { useEffect, useState } from 'react';
import type { OpenProcess } from '@/processes/process-view';
import { downloadFile } from '@/ui/download';
import { NumberField } from '@/ui/NumberField';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { purposeHeadings } from '@/words/purposes';
import { useJob } from '../../job/job-store';
import { type FileSeen, type Files, filesOf, nameFor, setOf } from './use-files';

const say = words.makeReady;

export function FilesPanel({ open, pieces, files }: { open: OpenProcess; pieces: readonly Piece[]; files: Files }) {
  const job = useJob((s) => s.job);
  const revision = useJob((s) => s.revision);
  const run = useJob((s) => s.run);
  const { entry, kind } = open;
  const { seen, fault, isReady, dpi, setDpi, download, downloadSet, downloadAllSets, nameOf, hasSeveral } = files;
  const box = overallBox(pieces);
  const names = filesOf(open);
  const set = setOf(open);
  const notMade = [...new Set(pieces.map((p) => p.purpose))].filter(
    (purpose) => meaningOf(kind, purpose) === null && makeOf({ purpose }) !== 'nothing',
  );
  const choose = (name: string, isIn: boolean) => {
    const next = names.filter((one) => (one === name ? isIn : set.includes(one)));
    run({ do: 'set-machine', id: entry.id, machine: { ...entry.machine, files: next } });
  };
  return (
    <>
      {box && (
        <Section title={say.atTrueSize}>
          <Reading name={say.pieces}>{pieces.length}</Reading>
          <Reading name={say.wide}>{printBoth(widthOf(box), job.unit)}</Reading>
          <Reading name={say.high}>{printBoth(heightOf(box), job.unit)}</Reading>
          {job.planScale && (
            <Typography variant="caption" color="textSecondary">
              {job.planScale.atRealSize ? say.atRealSize(job.planScale.text) : say.asLargeAsThePlan(job.planScale.text)}
            </Typography>
          )}
        </Section>
      )}
      <Section title={say.files}>
        {notMade.length > 0 && (
          <Alert severity="info" variant="outlined">
            {say.notMade(notMade.map((purpose) => purposeHeadings[purpose]).join(', '))}
          </Alert>
        )}
        {names.map((name) => (
          <FileRow
            key={name}
            file={kind.files[name] as FileRowProps['file']}
            seen={seen[name]}
            isReady={isReady}
            isInSet={set.includes(name)}
            onSet={(isIn) => choose(name, isIn)}
            onDownload={() => void download(name)}
          />
        ))}
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mt: 0.75 }}>
          {say.theSetExplanation}
        </Typography>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1.25 }}>
          {Object.values(kind.files).some(({ isRaster }) => isRaster) && (
            <NumberField
              label={say.resolutionOfThePng}
              value={dpi}
              digits={0}
              unit={say.dpi}
              least={10}
              most={2400}
              onNumber={(n) => setDpi(Math.round(n))}
            />
          )}
          <NamePattern example={nameOf(open, set[0] ?? names[0] ?? '')} />
          <Button fullWidth variant="outlined" startIcon={<FolderZipOutlined />} disabled={!isReady} onClick={() => void downloadSet()}>
            {say.downloadTheSet(set.length)}
          </Button>
          {hasSeveral && (
            <Button
              fullWidth
              variant="outlined"
              startIcon={<FolderZipOutlined />}
              disabled={!isReady}
              onClick={() => void downloadAllSets()}
            >
              {say.downloadAllSets}
            </Button>
          )}
          {fault && (
            <Alert severity="error" variant="outlined">
              {fault}
            </Alert>
          )}
        </Box>
      </Section>
      <Section title={say.theJobItself}>
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1 }}>
          {say.jobFileExplanation}
        </Typography>
        <Button
          fullWidth
          variant="outlined"
          startIcon={<DownloadOutlined />}
          onClick={() =>
            downloadFile(
              strToU8(JSON.stringify(documentOf(job), null, 1)),
              nameFor(job, null, 'job', revision(), 'json'),
              'application/json',
            )
          }
        >
          {say.downloadTheJobsDocument}
        </Button>
      </Section>
    </>
  );
}

interface FileRowProps {
  readonly file: ProcessFile<object, unknown>;
  readonly seen: FileSeen | undefined;
  readonly isReady: boolean;
  readonly isInSet: boolean;
  readonly onSet: (isIn: boolean) => void;
  readonly onDownload: () => void;
}

function FileRow({ file: { word, about }, seen, isReady, isInSet, onSet, onDownload }: FileRowProps) {
  return (
    <Box
      role="group"
      aria-label={word}
      sx={{
        display: 'grid',
        gridTemplateColumns: 'auto 1fr auto',
        columnGap: 0.75,
        alignItems: 'center',
        py: 0.75,
        borderBottom: '1px solid',
        borderColor: 'divider',
      }}
    >
      <Checkbox
        size="small"
        checked={isInSet}
        onChange={(_, isIn) => onSet(isIn)}
        slotProps={{ input: { 'aria-label': say.inTheSet(word) } }}
        sx={{ p: 0.25, ml: -0.5 }}
      />
      <Box>
        <Typography variant="body2" sx={{ fontWeight: 600 }}>
          {word}
        </Typography>
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', lineHeight: 1.35 }}>
          {about}
        </Typography>
      </Box>
      <Button
        size="small"
        variant="outlined"
        aria-label={say.downloadOf(word)}
        startIcon={seen === 'working' ? <CircularProgress size={14} /> : <DownloadOutlined />}
        disabled={!isReady || seen === 'working'}
        onClick={onDownload}
      >
        {say.download}
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
              {seen.largestMm === null
                ? say.pagesMade(seen.pages ?? 1)
                : say.readBack(
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

function NamePattern({ example }: { example: string }) {
  const pattern = useJob((s) => s.job.making.fileNames);
  const run = useJob((s) => s.run);
  const [typed, setTyped] = useState(pattern);
  useEffect(() => setTyped(pattern), [pattern]);
  const settle = () => {
    const next = typed.trim();
    if (next === '') setTyped(pattern);
    else if (next !== pattern) run({ do: 'name-files', fileNames: next });
  };
  return (
    <TextField
      fullWidth
      label={say.filesAreNamed}
      value={typed}
      helperText={say.fileNameExample(example)}
      onChange={(event) => setTyped(event.target.value.slice(0, 120))}
      onBlur={settle}
      onKeyDown={(event) => {
        if (event.key === 'Enter') settle();
        event.stopPropagation();
      }}
      sx={{ mt: 1 }}
    />
  );
}
