'use client';
/** The tools that a job has at hand, taken from the shelf; how they are used may be changed for this job. */
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { chipLoadOf, type MillingSettings, type MillPlan, type MillTool } from '@nuvet/core/milling';
import { isMillTool, millToolFrom } from '@nuvet/core/shelf';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { useJob } from '@/job/job-store';
import { ofKind, useShelf } from '@/shelf/shelf-store';
import { NumberField } from '@/ui/NumberField';
import { Measure, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { Unfold } from '@/ui/Unfold';
import { words } from '@/words';
import type { PanelProps } from '../process-view';

const say = words.cnc;

/** The chip load in wood, as a share of the diameter: common practice. */
const chipRange = [0.006, 0.02] as const;

export function ToolsSection({ open: { settings, set, stock } }: Pick<PanelProps<MillingSettings, MillPlan>, 'open'>) {
  const { items } = useShelf();
  const [opened, setOpened] = useState<string | null>(null);
  const there = ofKind(items, 'tool').filter(({ value }) => isMillTool(value));
  const left = there.filter(({ id }) => !settings.tools.some(({ shelf }) => shelf?.id === id));
  const take = (id: string): void => {
    const item = there.find((one) => one.id === id);
    const tool = item && millToolFrom(item.value, { id: item.id, revision: item.revision }, nanoid(8), stock.name);
    if (tool) set({ tools: [...settings.tools, tool] });
  };
  const change = (id: string, more: Partial<MillTool>): void =>
    set({ tools: settings.tools.map((tool) => (tool.id === id ? { ...tool, ...more } : tool)) });
  return (
    <Section title={say.tools}>
      <Box sx={{ display: 'grid', gap: 0.75, mt: 0.5 }}>
        {settings.tools.map((tool) => (
          <ToolRow
            key={tool.id}
            tool={tool}
            isOpen={opened === tool.id}
            onOpen={(isOpen) => setOpened(isOpen ? tool.id : null)}
            onChange={(more) => change(tool.id, more)}
            onRemove={() => set({ tools: settings.tools.filter(({ id }) => id !== tool.id) })}
          />
        ))}
        <TextField
          select
          fullWidth
          label={say.takeATool}
          value=""
          disabled={items !== null && left.length === 0}
          helperText={items !== null && there.length === 0 ? say.noToolsOnTheShelf : undefined}
          onChange={(event) => take(event.target.value)}
        >
          {left.map(({ id, value }) => (
            <MenuItem key={id} value={id}>
              {value.name}
            </MenuItem>
          ))}
        </TextField>
      </Box>
    </Section>
  );
}

interface ToolRowProps {
  readonly tool: MillTool;
  readonly isOpen: boolean;
  readonly onOpen: (isOpen: boolean) => void;
  readonly onChange: (more: Partial<MillTool>) => void;
  readonly onRemove: () => void;
}

function ToolRow({ tool, isOpen, onOpen, onChange, onRemove }: ToolRowProps) {
  const unit = useJob((s) => s.job.unit);
  const [low, high] = chipRange.map((share) => (share * tool.diameterMm).toFixed(3)) as [string, string];
  return (
    <Box role="group" aria-label={tool.name} sx={{ border: 1, borderColor: 'divider', borderRadius: 1, px: 1.25, py: 0.5 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.5 }}>
        <Unfold
          name={tool.name}
          summary={say.toolReading(`${Number(tool.diameterMm.toFixed(3))} mm`, tool.flutes, chipLoadOf(tool).toFixed(3))}
          isOpen={isOpen}
          onOpen={onOpen}
        />
        <IconButton size="small" aria-label={say.removeTool(tool.name)} onClick={onRemove}>
          <DeleteOutlined fontSize="small" />
        </IconButton>
      </Box>
      {isOpen && (
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1, mb: 0.75 }}>
          <Row>
            <NumberField
              label={say.speed}
              value={tool.speedRpm}
              digits={0}
              unit={say.turns}
              least={1}
              most={200_000}
              onNumber={(n) => onChange({ speedRpm: n })}
            />
            <NumberField
              label={say.feed}
              value={tool.feedMmPerMin}
              digits={0}
              unit="mm/min"
              least={1}
              most={50_000}
              onNumber={(n) => onChange({ feedMmPerMin: n })}
            />
          </Row>
          <Row>
            <NumberField
              label={say.plunge}
              value={tool.plungeMmPerMin}
              digits={0}
              unit="mm/min"
              least={1}
              most={50_000}
              onNumber={(n) => onChange({ plungeMmPerMin: n })}
            />
            <NumberField
              label={say.stepover}
              value={100 * tool.stepover}
              digits={0}
              unit={say.ofTheDiameter}
              least={1}
              most={100}
              onNumber={(n) => onChange({ stepover: n / 100 })}
            />
          </Row>
          <Measure label={say.stepdown} mm={tool.stepdownMm} unit={unit} most={200} onMm={(stepdownMm) => onChange({ stepdownMm })} />
          <Typography variant="caption" color="textSecondary">
            {say.chipLoadRange(low, high)}
          </Typography>
        </Box>
      )}
    </Box>
  );
}
