'use client';
/** How one body is made: from which height to which, how its sides lean, its edges, and what becomes of it. */
import Box from '@mui/material/Box';
import { type BodySetting, type EdgeSetting, largestEdgeMm, steepestDraft } from '@nuvet/core/solid';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { words } from '@/words';

const say = words.solid;

interface Props {
  readonly body: BodySetting;
  readonly unit: 'mm' | 'in';
  readonly onBody: (change: Partial<BodySetting>) => void;
}

export function BodyFields({ body, unit, onBody }: Props) {
  return (
    <Box sx={{ display: 'grid', gap: 1.25 }}>
      <Row>
        <Measure label={say.from} mm={body.fromMm} unit={unit} range="any" least={-500} most={500} onMm={(fromMm) => onBody({ fromMm })} />
        <Measure label={say.to} mm={body.toMm} unit={unit} range="any" least={-500} most={500} onMm={(toMm) => onBody({ toMm })} />
      </Row>
      <Edge label={say.top} edge={body.top} unit={unit} onEdge={(top) => onBody({ top })} />
      <Edge label={say.bottom} edge={body.bottom} unit={unit} onEdge={(bottom) => onBody({ bottom })} />
      <Row>
        <NumberField
          label={say.draft}
          value={body.draftDegrees}
          digits={2}
          unit="°"
          least={-steepestDraft}
          most={steepestDraft}
          onNumber={(draftDegrees) => onBody({ draftDegrees })}
        />
        <Pick label={say.how} value={body.how} words={say.hows} onPick={(how) => onBody({ how })} />
      </Row>
    </Box>
  );
}

function Edge({ label, edge, unit, onEdge }: { label: string; edge: EdgeSetting; unit: 'mm' | 'in'; onEdge: (edge: EdgeSetting) => void }) {
  return (
    <Row>
      <Pick label={label} value={edge.kind} words={say.edges} onPick={(kind) => onEdge({ ...edge, kind })} />
      {edge.kind !== 'sharp' && (
        <Measure label={say.edgeSize} mm={edge.sizeMm} unit={unit} most={largestEdgeMm} onMm={(sizeMm) => onEdge({ ...edge, sizeMm })} />
      )}
    </Row>
  );
}
