'use client';
/**
 * The shelf beside the job: a material, or a machine for the process that is open, is taken with one click.
 */
import CloseOutlined from '@mui/icons-material/CloseOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Drawer from '@mui/material/Drawer';
import IconButton from '@mui/material/IconButton';
import Tab from '@mui/material/Tab';
import Tabs from '@mui/material/Tabs';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import type { Command } from '@nuvet/core/job';
import { printToType } from '@nuvet/core/length';
import { processKinds } from '@nuvet/core/processes';
import { type Material, machineCommand, materialCommand, type ShelfItem } from '@nuvet/core/shelf';
import Link from 'next/link';
import { type ReactNode, useState } from 'react';
import { useJob } from '@/job/job-store';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import { Swatch } from './Swatch';
import { ofKind, useShelf } from './shelf-store';

interface Props {
  readonly isOpen: boolean;
  /** The process that machines are chosen for. */
  readonly processId: string | null;
  readonly onClose: () => void;
}

export function ShelfDrawer({ isOpen, processId, onClose }: Props) {
  return (
    <Drawer
      anchor="right"
      open={isOpen}
      onClose={onClose}
      slotProps={{ paper: { 'aria-label': words.shelf.shelf, sx: { width: 400, maxWidth: '100vw' } } }}
    >
      {isOpen && <Choices processId={processId} onClose={onClose} />}
    </Drawer>
  );
}

function Choices({ processId, onClose }: Omit<Props, 'isOpen'>) {
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const { items, fault } = useShelf();
  const [tab, setTab] = useState<'material' | 'machine'>('material');
  const [search, setSearch] = useState('');
  const entry = job.making.processes.find(({ id }) => id === processId);
  const isFound = ({ value: { name } }: ShelfItem): boolean => name.toLowerCase().includes(search.trim().toLowerCase());
  const materials = ofKind(items, 'material').filter(isFound);
  const machines = ofKind(items, 'machine').filter((item) => isFound(item) && item.value.process === entry?.process);
  const take = (command: Command): void => {
    run(command);
    onClose();
  };
  return (
    <Box sx={{ display: 'grid', gridTemplateRows: 'auto auto auto minmax(0, 1fr) auto', height: '100%' }}>
      <Box sx={{ display: 'flex', alignItems: 'center', px: 2, pt: 1.5 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          {words.shelf.shelf}
        </Typography>
        <IconButton aria-label={words.shelf.close} onClick={onClose}>
          <CloseOutlined />
        </IconButton>
      </Box>
      <Tabs value={tab} onChange={(_, next) => setTab(next)} sx={{ px: 2 }}>
        <Tab value="material" label={words.shelf.materials} />
        <Tab value="machine" label={words.shelf.machinesFor(processKinds[entry?.process ?? '']?.word ?? '')} disabled={!entry} />
      </Tabs>
      <Box sx={{ px: 2, pt: 1.5 }} onKeyDown={(event) => event.key !== 'Escape' && event.stopPropagation()}>
        <TextField fullWidth size="small" label={words.shelf.search} value={search} onChange={(event) => setSearch(event.target.value)} />
      </Box>
      <Box component="ul" sx={{ overflow: 'auto', m: 0, px: 2, py: 1, listStyle: 'none' }}>
        {fault && <Typography color="error">{fault}</Typography>}
        {tab === 'material'
          ? materials.map((item) => (
              <Choice
                key={item.id}
                name={item.value.name}
                about={aboutMaterial(item.value, job.unit)}
                isOwn={item.id === job.making.stock.shelf?.id}
                picture={<Swatch material={item.value} />}
                onUse={() => take(materialCommand(item, job))}
              />
            ))
          : machines.map((item) => (
              <Choice
                key={item.id}
                name={item.value.name}
                about={words.shelf.bed(sizeOr(item.value.bedWidthMm, job.unit), sizeOr(item.value.bedHeightMm, job.unit))}
                isOwn={item.id === entry?.machine.shelf?.id}
                onUse={() => entry && take(machineCommand(item, entry, job, items ?? []))}
              />
            ))}
        {(tab === 'material' ? materials : machines).length === 0 && items && (
          <Typography color="textSecondary">{words.shelf.nothingFound}</Typography>
        )}
      </Box>
      <Box sx={{ p: 2, borderTop: `1px solid ${colours.line}` }}>
        <Button component={Link} href="/shelf" fullWidth variant="outlined">
          {words.shelf.goToTheShelf}
        </Button>
      </Box>
    </Box>
  );
}

const inUnit = (mm: number, unit: 'mm' | 'in'): string => `${printToType(mm, unit)} ${unit}`;
const sizeOr = (mm: number | null, unit: 'mm' | 'in'): string => (mm === null ? '–' : inUnit(mm, unit));

function aboutMaterial({ nominalMm, measuredMm, onMachines }: Material, unit: 'mm' | 'in'): string {
  const kerf = onMachines.find(({ kerfMm }) => kerfMm !== null);
  return [
    measuredMm === null ? '' : words.shelf.measuredAs(inUnit(measuredMm, unit)),
    nominalMm === null ? '' : words.shelf.soldAs(inUnit(nominalMm, unit)),
    kerf ? words.shelf.kerfOn(inUnit(kerf.kerfMm as number, unit), kerf.machine) : '',
  ]
    .filter(Boolean)
    .join(' · ');
}

interface ChoiceProps {
  readonly name: string;
  readonly about: string;
  readonly isOwn: boolean;
  readonly picture?: ReactNode;
  readonly onUse: () => void;
}

function Choice({ name, about, isOwn, picture, onUse }: ChoiceProps) {
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: picture ? '40px 1fr auto' : '1fr auto',
        gap: 1.25,
        alignItems: 'center',
        py: 1,
        borderBottom: `1px solid ${colours.line}`,
      }}
    >
      {picture}
      <Box sx={{ minWidth: 0 }}>
        <Typography variant="body2" sx={{ fontWeight: 600 }}>
          {name}
        </Typography>
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', lineHeight: 1.35 }}>
          {about}
        </Typography>
      </Box>
      <Button size="small" variant={isOwn ? 'text' : 'outlined'} disabled={isOwn} aria-label={words.shelf.useNamed(name)} onClick={onUse}>
        {isOwn ? words.shelf.inUse : words.shelf.use}
      </Button>
    </Box>
  );
}
