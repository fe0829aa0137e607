'use client';
/** How high outlines are: all of them, and those that are made otherwise. */
import Box from '@mui/material/Box';
import Divider from '@mui/material/Divider';
import Typography from '@mui/material/Typography';
import { type Purpose, purposeKinds, purposes } from '@nuvet/core/job';
import { type BodyRule, mostRules, type SolidPlan, type SolidSettings } from '@nuvet/core/solid';
import { useJob } from '@/job/job-store';
import { FieldRows } from '@/ui/FieldRows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { OutlinePick } from '../OutlinePick';
import { PlanFault } from '../PlanFault';
import { PlanNotes } from '../PlanNotes';
import type { PanelProps } from '../process-view';
import { BodyFields } from './BodyFields';

const say = words.solid;
/** Before the name of a purpose, where that is chosen in place of an outline. */
const ofPurpose = 'purpose ';

export function BodiesPanel({ open: { settings, set, notes }, pieces }: PanelProps<SolidSettings, SolidPlan>) {
  const unit = useJob((s) => s.job.unit);
  const { body, rules } = settings;
  const outlines = pieces.filter(({ outer }) => outer.closed);
  const used = purposes.filter((purpose) => outlines.some((piece) => piece.purpose === purpose));
  const also = Object.fromEntries(used.map((purpose) => [ofPurpose + purpose, say.ofPurpose(purposeKinds[purpose].word)]));
  return (
    <>
      <Section title={say.all}>
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1.5 }}>
          {say.planeAbout}
        </Typography>
        <BodyFields body={body} unit={unit} onBody={(change) => set({ body: { ...body, ...change } })} />
      </Section>
      <Section title={say.others}>
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1.5 }}>
          {say.othersAbout}
        </Typography>
        <FieldRows
          list={rules}
          most={mostRules}
          fields={1}
          onList={(to) => set({ rules: to })}
          onAdd={
            outlines.length > 0 ? () => set({ rules: [...rules, { ...body, pieceId: outlines[0]?.id ?? null, purpose: null }] }) : null
          }
          addWord={say.addRule}
          removeWord={say.removeRule}
        >
          {(rule: BodyRule, onChange, k) => (
            <>
              <OutlinePick
                label={say.of(k + 1)}
                pieces={outlines}
                value={rule.purpose ? ofPurpose + rule.purpose : rule.pieceId}
                also={also}
                onPick={(id) =>
                  onChange(
                    id.startsWith(ofPurpose)
                      ? { ...rule, pieceId: null, purpose: id.slice(ofPurpose.length) as Purpose }
                      : { ...rule, pieceId: id, purpose: null },
                  )
                }
              />
              <Box sx={{ gridColumn: 1 }}>
                <BodyFields body={rule} unit={unit} onBody={(change) => onChange({ ...rule, ...change })} />
              </Box>
              {k < rules.length - 1 && <Divider sx={{ gridColumn: 1 }} />}
            </>
          )}
        </FieldRows>
      </Section>
      <PlanFault />
      <PlanNotes notes={notes} />
    </>
  );
}
