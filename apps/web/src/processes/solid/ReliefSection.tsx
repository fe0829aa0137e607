'use client';
/** Outlines whose bodies end above in a surface as high as a picture is light. */
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { Piece } from '@nuvet/core/job';
import { mostReliefs, type SolidPlan, type SolidSettings } from '@nuvet/core/solid';
import { useJob } from '@/job/job-store';
import { FieldRows } from '@/ui/FieldRows';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { OutlinePick } from '../OutlinePick';
import type { PanelProps } from '../process-view';

const say = words.solid;

interface ReliefSectionProps {
  readonly open: PanelProps<SolidSettings, SolidPlan>['open'];
  readonly unit: 'mm' | 'in';
  readonly outlines: readonly Piece[];
}

export function ReliefSection({ open: { settings, set }, unit, outlines }: ReliefSectionProps) {
  const pictures = useJob((s) => s.job.pictures);
  const { reliefs, body } = settings;
  const [first, picture] = [outlines[0]?.id, pictures[0]?.id];
  const plain = { blackMm: Math.max(body.fromMm + 1, 1), whiteMm: Math.max(body.fromMm + 1, 1) + 3, smoothMm: 0.3, stepMm: 0.3 };
  return (
    <Section title={say.reliefs}>
      <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1.25 }}>
        {picture ? say.reliefsAbout : say.noPictures}
      </Typography>
      {picture && (
        <FieldRows
          list={reliefs}
          most={mostReliefs}
          fields={1}
          onList={(to) => set({ reliefs: to })}
          onAdd={first ? () => set({ reliefs: [...reliefs, { pieceId: first, pictureId: picture, ...plain }] }) : null}
          addWord={say.addRelief}
          removeWord={say.removeRelief}
        >
          {(relief, onChange, k) => (
            <>
              <OutlinePick
                label={say.reliefOn(k + 1)}
                pieces={outlines}
                value={relief.pieceId}
                onPick={(pieceId) => onChange({ ...relief, pieceId })}
              />
              <Box sx={{ gridColumn: 1, display: 'grid', gap: 1.25 }}>
                <Pick
                  label={say.reliefOf}
                  value={relief.pictureId}
                  words={Object.fromEntries(pictures.map(({ id, name }) => [id, name]))}
                  onPick={(pictureId) => onChange({ ...relief, pictureId })}
                />
                <Row>
                  {(['blackMm', 'whiteMm'] as const).map((end) => (
                    <Measure
                      key={end}
                      label={end === 'blackMm' ? say.black : say.white}
                      mm={relief[end]}
                      unit={unit}
                      range="any"
                      least={-500}
                      most={500}
                      onMm={(mm) => onChange({ ...relief, [end]: mm })}
                    />
                  ))}
                </Row>
                <Row>
                  <Measure
                    label={say.smooth}
                    mm={relief.smoothMm}
                    unit={unit}
                    range="from zero"
                    most={50}
                    onMm={(smoothMm) => onChange({ ...relief, smoothMm })}
                  />
                  <Measure
                    label={say.step}
                    mm={relief.stepMm}
                    unit={unit}
                    least={0.02}
                    most={20}
                    onMm={(stepMm) => onChange({ ...relief, stepMm })}
                  />
                </Row>
              </Box>
            </>
          )}
        </FieldRows>
      )}
    </Section>
  );
}
