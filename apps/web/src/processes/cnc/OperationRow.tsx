'use client';
/** An operation in the docket: what, tool, depth and time; its fields once it is opened; dragged, or moved by its buttons. */
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import KeyboardArrowDownOutlined from '@mui/icons-material/KeyboardArrowDownOutlined';
import KeyboardArrowUpOutlined from '@mui/icons-material/KeyboardArrowUpOutlined';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import IconButton from '@mui/material/IconButton';
import { printToType } from '@nuvet/core/length';
import { type MillingSettings, type MillPlan, type Operation, operationWords } from '@nuvet/core/milling';
import { useJob } from '@/job/job-store';
import { Reading } from '@/ui/Section';
import { Unfold } from '@/ui/Unfold';
import { words } from '@/words';
import { inTime } from '../cut/cut-sections';
import { OperationFields } from './OperationFields';

const say = words.cnc;

interface Props {
  readonly number: number;
  readonly count: number;
  readonly operation: Operation;
  readonly settings: MillingSettings;
  readonly plan: MillPlan | null;
  readonly isOpen: boolean;
  readonly onOpen: (isOpen: boolean) => void;
  readonly onChange: (next: Operation) => void;
  readonly onMove: (by: -1 | 1) => void;
  readonly onRemove: () => void;
  readonly onDragStart: () => void;
  readonly onDrop: () => void;
}

export function OperationRow(props: Props) {
  const { number, count, operation, settings, plan, isOpen, onOpen, onChange, onMove, onRemove, onDragStart, onDrop } = props;
  const unit = useJob((s) => s.job.unit);
  const name = say.nameOf(number, operationWords[operation.kind]);
  const runs = (plan?.runs ?? []).filter((run) => run.operation.id === operation.id);
  const seconds = runs.reduce((sum, run) => sum + run.seconds, 0);
  const engaged = runs.flatMap(({ engagement }) => (engagement ? [engagement] : []));
  const tool = settings.tools.find(({ id }) => id === operation.tool);
  const length = (mm: number): string => `${printToType(mm, unit)} ${unit}`;
  return (
    <Box
      component="li"
      aria-label={name}
      draggable={!isOpen}
      onDragStart={onDragStart}
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        onDrop();
      }}
      sx={{ border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper', opacity: operation.isOn ? 1 : 0.75 }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', pr: 0.5 }}>
        <Checkbox
          size="small"
          checked={operation.isOn}
          onChange={(event) => onChange({ ...operation, isOn: event.target.checked })}
          slotProps={{ input: { 'aria-label': say.include(name) } }}
        />
        <Unfold
          name={name}
          summary={say.summary(
            tool?.name ?? say.noTool,
            depthSaid(operation, length),
            operation.isOn && seconds > 0 ? inTime(seconds) : '',
          )}
          label={say.details(name)}
          isOpen={isOpen}
          onOpen={onOpen}
        />
        <IconButton size="small" disabled={number === 1} aria-label={say.moveUp(name)} onClick={() => onMove(-1)}>
          <KeyboardArrowUpOutlined fontSize="small" />
        </IconButton>
        <IconButton size="small" disabled={number === count} aria-label={say.moveDown(name)} onClick={() => onMove(1)}>
          <KeyboardArrowDownOutlined fontSize="small" />
        </IconButton>
        <IconButton size="small" aria-label={say.removeOperation(name)} onClick={onRemove}>
          <DeleteOutlined fontSize="small" />
        </IconButton>
      </Box>
      {isOpen && (
        <Box sx={{ display: 'grid', gap: 1.25, px: 1.25, pb: 1.25, pt: 0.5 }}>
          <OperationFields operation={operation} settings={settings} onChange={onChange} />
          {engaged.length > 0 && (
            <Reading name={say.engaged}>
              {say.engagedReading(
                (engaged.reduce((sum, { mean }) => sum + mean, 0) / engaged.length).toFixed(0),
                Math.max(...engaged.map(({ largest }) => largest)).toFixed(0),
              )}
            </Reading>
          )}
        </Box>
      )}
    </Box>
  );
}

function depthSaid(operation: Operation, length: (mm: number) => string): string {
  if (operation.kind === 'chamfer') return say.wide(length(operation.widthMm));
  if (operation.depthMm !== null) return say.deep(length(operation.depthMm));
  return operation.kind === 'pocket' ? say.half : say.through;
}
