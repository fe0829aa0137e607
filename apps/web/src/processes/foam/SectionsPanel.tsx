'use client';
/** Sections along the body: where each stands, and how it is given. */
import AddOutlined from '@mui/icons-material/AddOutlined';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Typography from '@mui/material/Typography';
import { type FoamPlan, type FoamSection, type FoamSettings, mostSectionPoints, mostSections } from '@nuvet/core/foam';
import { useJob } from '@/job/job-store';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { OutlinePick } from '../OutlinePick';
import { PlanFault } from '../PlanFault';
import { PlanNotes } from '../PlanNotes';
import type { PanelProps } from '../process-view';
import { plainHalf } from './plain-half';
import { chooseSection, useChosenSection } from './section-store';

const say = words.foam;

export function SectionsPanel({ open: { settings, set, plan }, pieces }: PanelProps<FoamSettings, FoamPlan>) {
  const unit = useJob((s) => s.job.unit);
  const { section, point } = useChosenSection();
  const { sections } = settings;
  const chosen = sections[section];
  const change = (k: number, by: FoamSection) => set({ sections: sections.map((one, n) => (n === k ? by : one)) });
  const outlines = pieces.filter(({ id, outer }) => outer.closed && id !== plan?.sideId && id !== plan?.aboveId);
  const asKind = (one: FoamSection, kind: FoamSection['kind']): FoamSection => {
    const { atMm } = one;
    if (kind === 'rule') return { kind, atMm, topExponent: settings.topExponent, bottomExponent: settings.bottomExponent, widestAt: settings.widestAt }; // biome-ignore format: one line
    if (kind === 'outline') return { kind, atMm, pieceId: outlines[0]?.id ?? '-' };
    return { kind, atMm, points: plainHalf };
  };
  const add = () => {
    const atMm = Math.round(((plan?.lengthMm ?? 100) * (sections.length + 1)) / (sections.length + 2));
    set({ sections: [...sections, { kind: 'drawn', atMm, points: plainHalf }] });
    chooseSection(sections.length);
  };
  return (
    <>
      <Section title={say.sections}>
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1 }}>
          {say.sectionsAbout}
        </Typography>
        <Box sx={{ display: 'grid', gap: 1.5 }}>
          {sections.map((one, k) => (
            <Box
              // biome-ignore lint/suspicious/noArrayIndexKey: sections are told apart by their place in the list
              key={k}
              onFocus={() => section !== k && chooseSection(k)}
              sx={{ display: 'grid', gap: 1, p: 1, mx: -1, borderRadius: 1, bgcolor: k === section ? 'action.selected' : 'transparent' }}
            >
              <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr auto', gap: 1, alignItems: 'start' }}>
                <Measure
                  label={say.section(k + 1)}
                  mm={one.atMm}
                  unit={unit}
                  range="from zero"
                  most={20_000}
                  onMm={(mm) => change(k, { ...one, atMm: mm })}
                />
                <Pick label={say.sectionKind} value={one.kind} words={say.sectionKinds} onPick={(kind) => change(k, asKind(one, kind))} />
                <IconButton
                  aria-label={say.removeSection(k + 1)}
                  size="small"
                  onClick={() => set({ sections: sections.filter((_, n) => n !== k) })}
                >
                  <DeleteOutlined fontSize="small" />
                </IconButton>
              </Box>
              {one.kind === 'rule' && (
                <Row>
                  <NumberField
                    label={say.topExponent}
                    value={one.topExponent}
                    digits={2}
                    unit={say.exponent}
                    least={1}
                    most={8}
                    onNumber={(n) => change(k, { ...one, topExponent: n })}
                  />
                  <NumberField
                    label={say.bottomExponent}
                    value={one.bottomExponent}
                    digits={2}
                    unit={say.exponent}
                    least={1}
                    most={8}
                    onNumber={(n) => change(k, { ...one, bottomExponent: n })}
                  />
                  <NumberField
                    label={say.widest}
                    value={100 * one.widestAt}
                    digits={0}
                    unit="%"
                    least={0}
                    most={95}
                    onNumber={(n) => change(k, { ...one, widestAt: n / 100 })}
                  />
                </Row>
              )}
              {one.kind === 'outline' && (
                <OutlinePick
                  label={say.sectionOutline}
                  pieces={outlines}
                  value={one.pieceId}
                  onPick={(pieceId) => change(k, { ...one, pieceId })}
                />
              )}
            </Box>
          ))}
        </Box>
        {sections.length < mostSections && (
          <Button size="small" startIcon={<AddOutlined />} onClick={add} sx={{ mt: 0.75 }}>
            {say.addSection}
          </Button>
        )}
      </Section>
      <PlanFault />
      {chosen?.kind === 'drawn' && (
        <Section title={say.section(section + 1)}>
          {point === null ? (
            <Typography variant="body2" color="textSecondary">
              {say.chooseAPoint}
            </Typography>
          ) : (
            <Box sx={{ display: 'grid', gap: 1, mt: 1 }}>
              <Pick
                label={say.corner}
                value={chosen.points[point]?.corner ? 'corner' : 'smooth'}
                words={say.cornerKinds}
                onPick={(kind) => change(section, { ...chosen, points: chosen.points.map((p, n) => (n === point ? { ...p, corner: kind === 'corner' } : p)) })} // biome-ignore format: one line
              />
              <Row>
                <Button
                  size="small"
                  disabled={chosen.points.length >= mostSectionPoints || point + 1 >= chosen.points.length}
                  onClick={() => {
                    const [a, b] = [chosen.points[point], chosen.points[point + 1]];
                    if (!a || !b) return;
                    const between = { at: { x: (a.at.x + b.at.x) / 2, y: (a.at.y + b.at.y) / 2 }, corner: false };
                    change(section, {
                      ...chosen,
                      points: [...chosen.points.slice(0, point + 1), between, ...chosen.points.slice(point + 1)],
                    });
                    chooseSection(section, point + 1);
                  }}
                >
                  {say.addPoint}
                </Button>
                <Button
                  size="small"
                  color="error"
                  disabled={point === 0 || point === chosen.points.length - 1}
                  onClick={() => {
                    change(section, { ...chosen, points: chosen.points.filter((_, n) => n !== point) });
                    chooseSection(section);
                  }}
                >
                  {say.removePoint}
                </Button>
              </Row>
            </Box>
          )}
        </Section>
      )}
      {plan && <PlanNotes notes={plan.notes} />}
    </>
  );
}
