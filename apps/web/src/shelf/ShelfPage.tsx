'use client';
/**
 * The workshop's shelf: a table each of materials, tools and machines, with what is chosen beside it.
 */
import AddOutlined from '@mui/icons-material/AddOutlined';
import ContentCopyOutlined from '@mui/icons-material/ContentCopyOutlined';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import DownloadOutlined from '@mui/icons-material/DownloadOutlined';
import UndoOutlined from '@mui/icons-material/UndoOutlined';
import UploadFileOutlined from '@mui/icons-material/UploadFileOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Chip from '@mui/material/Chip';
import LinearProgress from '@mui/material/LinearProgress';
import Tab from '@mui/material/Tab';
import Tabs from '@mui/material/Tabs';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import { type ShelfKind, shelfKindNames, writeCsv } from '@nuvet/core/shelf';
import { strToU8 } from 'fflate';
import Link from 'next/link';
import { useMemo, useRef, useState } from 'react';
import { colours } from '@/ui/colours';
import { downloadFile } from '@/ui/download';
import { narrow } from '@/ui/widths';
import { words } from '@/words';
import { type CsvOutcome, useCsvIn } from './csv-in';
import { Details } from './Details';
import { ShelfTable } from './ShelfTable';
import { addItem, newValue, removeItems, setShelfFault, undoEdit, useShelfEdits } from './shelf-edits';
import { ofKind, useShelf } from './shelf-store';

const say = words.shelf;
const tabWords: Readonly<Record<ShelfKind, string>> = { material: say.materials, tool: say.tools, machine: say.machines };

/** @param nonce that styles made in the page must name */
export function ShelfPage({ nonce }: { nonce: string | null }) {
  const { items, fault: readingFault } = useShelf();
  const { done, fault, isBusy } = useShelfEdits();
  const [kind, setKind] = useState<ShelfKind>('material');
  const [unit, setUnit] = useState<'mm' | 'in'>('mm');
  const [search, setSearch] = useState('');
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const { share, outcome, take, dismiss } = useCsvIn();
  const input = useRef<HTMLInputElement>(null);
  const own = useMemo(() => ofKind(items, kind), [items, kind]);
  const picked = own.filter(({ id }) => chosen.includes(id));
  const only = picked.length === 1 ? picked[0] : undefined;
  const last = done.at(-1);
  const begin = async () => {
    const id = await addItem(kind, newValue(kind));
    if (id) setChosen([id]);
  };
  const duplicate = async () => {
    if (!only) return;
    const id = await addItem(kind, { ...only.value, name: say.copyOf(only.value.name).slice(0, 60) });
    if (id) setChosen([id]);
  };
  return (
    <Box
      component="main"
      sx={{
        height: '100vh',
        display: 'grid',
        gridTemplateRows: 'auto auto minmax(0, 1fr)',
        px: 3,
        py: 2.5,
        gap: 1.5,
        [narrow]: { height: 'auto', gridTemplateRows: 'auto', px: 1.5 },
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'end', gap: 2, flexWrap: 'wrap' }}>
        <Box sx={{ flex: '1 1 320px' }}>
          <Typography variant="h1" sx={{ color: colours.verdigris }}>
            {say.shelf}
          </Typography>
          <Typography color="textSecondary">{say.explanation}</Typography>
        </Box>
        <TextField size="small" label={say.search} value={search} onChange={(event) => setSearch(event.target.value)} sx={{ width: 200 }} />
        <ToggleButtonGroup exclusive size="small" value={unit} onChange={(_, next) => next && setUnit(next)} aria-label={say.unit}>
          <ToggleButton value="mm">{say.millimetres}</ToggleButton>
          <ToggleButton value="in">{say.inches}</ToggleButton>
        </ToggleButtonGroup>
        <Button component={Link} href="/" variant="outlined">
          {say.toTheJobs}
        </Button>
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, flexWrap: 'wrap', borderBottom: `1px solid ${colours.line}` }}>
        <Tabs
          value={kind}
          onChange={(_, next) => {
            setKind(next);
            setChosen([]);
          }}
          sx={{ flex: 1 }}
        >
          {shelfKindNames.map((one) => (
            <Tab
              key={one}
              value={one}
              label={
                <Box component="span">
                  {tabWords[one]} <Chip size="small" label={ofKind(items, one).length} sx={{ ml: 0.5 }} />
                </Box>
              }
            />
          ))}
        </Tabs>
        <Button variant="contained" startIcon={<AddOutlined />} onClick={() => void begin()}>
          {say.add[kind]}
        </Button>
        <Button startIcon={<ContentCopyOutlined />} disabled={!only} onClick={() => void duplicate()}>
          {say.duplicate}
        </Button>
        <Button
          startIcon={<DeleteOutlined />}
          disabled={picked.length === 0}
          onClick={() => {
            void removeItems(picked);
            setChosen([]);
          }}
        >
          {say.remove}
        </Button>
        <Tooltip title={last ? say.undoOf(last.label) : say.nothingToUndo}>
          <span>
            <Button startIcon={<UndoOutlined />} disabled={!last || isBusy} onClick={() => void undoEdit()}>
              {say.undo}
            </Button>
          </span>
        </Tooltip>
        <Button startIcon={<UploadFileOutlined />} onClick={() => input.current?.click()}>
          {say.csvIn}
        </Button>
        <Button
          startIcon={<DownloadOutlined />}
          disabled={own.length === 0}
          onClick={() =>
            downloadFile(
              strToU8(
                writeCsv(
                  kind,
                  own.map(({ value }) => value),
                ),
              ),
              `${tabWords[kind].toLowerCase()}.csv`,
              'text/csv',
            )
          }
        >
          {say.csvOut}
        </Button>
        <input
          ref={input}
          type="file"
          accept=".csv,text/csv"
          hidden
          aria-label={say.csvIn}
          onChange={(event) => {
            void take(kind, event.target.files?.[0]);
            event.target.value = '';
          }}
        />
      </Box>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'minmax(0, 1fr) 300px',
          gap: 2,
          minHeight: 0,
          [narrow]: { gridTemplateColumns: 'minmax(0, 1fr)', gridTemplateRows: '560px auto' },
        }}
      >
        <Box sx={{ display: 'flex', flexDirection: 'column', minHeight: 0, gap: 1 }}>
          {share !== null && <LinearProgress variant="determinate" value={100 * share} aria-label={say.csvReading} />}
          {outcome && <Outcome outcome={outcome} onClose={dismiss} />}
          {(fault ?? readingFault) && (
            <Alert severity="error" onClose={() => setShelfFault(null)}>
              {fault ?? readingFault}
            </Alert>
          )}
          <Box sx={{ flex: 1, minHeight: 0 }}>
            <ShelfTable kind={kind} items={own} unit={unit} search={search} chosen={chosen} onChosen={setChosen} nonce={nonce} />
          </Box>
        </Box>
        <Box
          component="aside"
          aria-label={say.details}
          sx={{ overflowY: 'auto', border: `1px solid ${colours.line}`, borderRadius: 1.5, bgcolor: 'background.paper', p: 2 }}
        >
          {only ? (
            <Details key={only.id} item={only} unit={unit} />
          ) : (
            <Typography color="textSecondary">{picked.length > 1 ? say.rowsChosen(picked.length) : say.noneChosen}</Typography>
          )}
        </Box>
      </Box>
    </Box>
  );
}

const maxLinesShown = 100;

function Outcome({ outcome: { message, faulty, ignored }, onClose }: { outcome: CsvOutcome; onClose: () => void }) {
  return (
    <Alert severity={faulty.length > 0 ? 'warning' : 'success'} onClose={onClose} sx={{ maxHeight: 190, overflowY: 'auto' }}>
      <Box role="status">{message}</Box>
      {ignored.length > 0 && <Box>{say.csvIgnored(ignored.join(', '))}</Box>}
      {faulty.slice(0, maxLinesShown).map(({ line, reason }) => (
        <Box key={line}>{say.csvLine(line, reason)}</Box>
      ))}
    </Alert>
  );
}
