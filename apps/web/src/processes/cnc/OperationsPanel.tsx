'use client';
/**
 * What is milled: the tools at hand, the operations in their order, and what the plan comes to.
 */
import AddOutlined from '@mui/icons-material/AddOutlined';
import AutoFixHighOutlined from '@mui/icons-material/AutoFixHighOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type MillingSettings, type MillPlan, type Operation, operationKinds, operationSchema, operationWords } from '@nuvet/core/milling';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { useMaking } from '@/table/making-store';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { told } from '@/words/told';
import { inTime } from '../cut/cut-sections';
import type { PanelProps } from '../process-view';
import { stopPlanning } from '../stop-planning';
import { OperationRow } from './OperationRow';
import { ToolsSection } from './ToolsSection';

const say = words.cnc;

export function OperationsPanel({ open }: PanelProps<MillingSettings, MillPlan>) {
  const { settings, set, plan } = open;
  return (
    <>
      <ToolsSection open={open} />
      {settings.tools.length === 0 ? (
        <Alert severity="info" variant="outlined">
          {say.toolsFirst}
        </Alert>
      ) : (
        <>
          <WorkSection open={open} />
          <Operations settings={settings} plan={plan} onSettings={set} />
        </>
      )}
    </>
  );
}

/** What the plan says of itself: what is left, what cannot be made, how long it takes. */
function WorkSection({ open: { plan, notes } }: Pick<PanelProps<MillingSettings, MillPlan>, 'open'>) {
  const planning = useMaking((s) => s.planning);
  return (
    <Section title={say.theWork}>
      {planning !== null && (
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
          <LinearProgress variant="determinate" value={100 * planning} sx={{ flex: 1 }} aria-label={say.planning} />
          <Button size="small" onClick={stopPlanning}>
            {say.stop}
          </Button>
        </Box>
      )}
      {notes.map(({ message, said, isFailure }) => (
        <Alert key={message} severity={isFailure ? 'error' : 'warning'} variant="outlined" sx={{ my: 0.5 }}>
          {told(said)}
        </Alert>
      ))}
      {plan && plan.runs.length > 0 && <Reading name={say.inAll}>{inTime(plan.seconds)}</Reading>}
    </Section>
  );
}

interface OperationsProps {
  readonly settings: MillingSettings;
  readonly plan: MillPlan | null;
  readonly onSettings: (change: Partial<MillingSettings>) => void;
}

function Operations({ settings, plan, onSettings }: OperationsProps) {
  const operations = settings.operations ?? plan?.operations ?? [];
  const [opened, setOpened] = useState<string | null>(null);
  const [dragged, setDragged] = useState<string | null>(null);
  const setAll = (next: readonly Operation[]): void => onSettings({ operations: [...next] });
  const change = (id: string, next: Operation): void => setAll(operations.map((one) => (one.id === id ? next : one)));
  const moveTo = (id: string, place: number): void => {
    const one = operations.find((o) => o.id === id);
    const rest = operations.filter((o) => o.id !== id);
    if (one) setAll([...rest.slice(0, place), one, ...rest.slice(place)]);
  };
  return (
    <Section title={say.operations}>
      <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 0.5 }}>
        {operations.length === 0 ? say.noOperations : settings.operations === null ? say.followsPurposes : say.ownList}
      </Typography>
      <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0, display: 'grid', gap: 0.75 }}>
        {operations.map((operation, k) => (
          <OperationRow
            key={operation.id}
            number={k + 1}
            count={operations.length}
            operation={operation}
            settings={settings}
            plan={plan}
            isOpen={opened === operation.id}
            onOpen={(isOpen) => setOpened(isOpen ? operation.id : null)}
            onChange={(next) => change(operation.id, next)}
            onMove={(by) => moveTo(operation.id, k + by)}
            onRemove={() => setAll(operations.filter(({ id }) => id !== operation.id))}
            onDragStart={() => setDragged(operation.id)}
            onDrop={() => dragged && moveTo(dragged, k)}
          />
        ))}
      </Box>
      <Box sx={{ display: 'grid', gap: 1, mt: 1 }}>
        {settings.operations !== null && (
          <Button variant="outlined" startIcon={<AutoFixHighOutlined />} onClick={() => onSettings({ operations: null })}>
            {say.planFromPurposes}
          </Button>
        )}
        <AddOperation onAdd={(kind) => setAll([...operations, newOperation(kind, settings)])} />
      </Box>
    </Section>
  );
}

function AddOperation({ onAdd }: { onAdd: (kind: Operation['kind']) => void }) {
  return (
    <TextField
      select
      fullWidth
      label={say.addOperation}
      value=""
      onChange={(event) => onAdd(event.target.value as Operation['kind'])}
      slotProps={{ input: { startAdornment: <AddOutlined fontSize="small" sx={{ mr: 1 }} /> } }}
    >
      {operationKinds.map((kind) => (
        <MenuItem key={kind} value={kind}>
          {operationWords[kind]}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** Which kinds of tools an operation is mostly done with, and how deep it is to begin with, mm. */
const firsts: Readonly<Record<Operation['kind'], { kinds: readonly string[]; more: object }>> = {
  profile: { kinds: ['end mill'], more: {} },
  pocket: { kinds: ['end mill'], more: {} },
  carve: { kinds: ['V-bit', 'tapered', 'ball'], more: { depthMm: 2 } },
  inlay: { kinds: ['V-bit'], more: { part: 'recess', depthMm: 2 } },
  follow: { kinds: ['V-bit', 'tapered', 'ball', 'end mill'], more: { depthMm: 0.5 } },
  chamfer: { kinds: ['V-bit'], more: { widthMm: 0.5 } },
  holes: { kinds: ['drill', 'end mill'], more: {} },
  face: { kinds: ['end mill'], more: { depthMm: 0.5 } },
};

function newOperation(kind: Operation['kind'], { tools }: MillingSettings): Operation {
  const { kinds, more } = firsts[kind];
  const tool = kinds.map((wanted) => tools.find((one) => one.kind === wanted)).find(Boolean) ?? tools[0];
  return operationSchema.parse({ kind, id: nanoid(8), tool: tool?.id ?? 'none', ...more });
}
