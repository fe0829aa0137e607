'use client';
/** How patches are cut: the seam allowance, sizes for ruler and rotary cutter, and what templates are printed on. */
import Box from '@mui/material/Box';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import { printBoth } from '@nuvet/core/length';
import { papers } from '@nuvet/core/make';
import { cutText, type QuiltingSettings, type QuiltPlan, templateCopies } from '@nuvet/core/quilting';
import { useJob } from '@/job/job-store';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { PlanFault } from '../PlanFault';
import type { PanelProps } from '../process-view';
import { EdgeAllowances } from './EdgeAllowances';
import { usePrints } from './prints';

const say = words.quilting;
const paperWords = Object.fromEntries(Object.entries(papers).map(([name, [w, h]]) => [name, words.makeReady.paperSize(name, w, h)]));

export function CuttingPanel({ open: { settings, set, plan } }: PanelProps<QuiltingSettings, QuiltPlan>) {
  const unit = useJob((s) => s.job.unit);
  usePrints(settings.fabrics);
  return (
    <>
      <Section title={say.cutting}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Row>
            <Measure
              label={say.allowance}
              mm={settings.allowanceMm}
              unit={unit}
              range="from zero"
              most={100}
              onMm={(mm) => set({ allowanceMm: mm })}
            />
            <Measure label={say.usable} mm={settings.usableMm} unit={unit} most={10_000} onMm={(mm) => set({ usableMm: mm })} />
          </Row>
          <FormControlLabel
            control={<Switch checked={settings.roundUp} onChange={(_, roundUp) => set({ roundUp })} />}
            label={say.roundUp}
          />
          <Pick
            label={say.templatePaper}
            value={papers[settings.paper] ? settings.paper : 'Letter'}
            words={paperWords}
            onPick={(paper) => set({ paper })}
          />
          <Pick
            label={say.copies}
            value={settings.copies}
            words={Object.fromEntries(templateCopies.map((one) => [one, say.copiesWords[one]])) as typeof say.copiesWords}
            onPick={(copies) => set({ copies })}
          />
        </Box>
      </Section>
      <PlanFault />
      {plan && <List plan={plan} settings={settings} unit={unit} />}
      {plan && settings.technique === 'pieced' && <EdgeAllowances plan={plan} settings={settings} set={set} unit={unit} />}
      {plan && plan.eases.length > 0 && <Eases eases={plan.eases} unit={unit} />}
      {plan && (
        <Section title={say.foundations}>
          <Typography variant="body2">
            {settings.technique === 'pieced'
              ? say.foundationsOf(plan.foundations.sections.length, plan.foundations.setIn.length)
              : say.noFoundations}
          </Typography>
        </Section>
      )}
    </>
  );
}

/** So little a seam takes up by itself, mm. */
const noEaseMm = 0.05;

/** Of curved seams how long they are on both templates. */
function Eases({ eases, unit }: { eases: QuiltPlan['eases']; unit: 'mm' | 'in' }) {
  return (
    <Section title={say.curvedSeams}>
      {eases.slice(0, mostEases).map(({ shapes: [a, b], lengthMm, easeMm, count }) => (
        <Reading
          key={`${a} ${b} ${lengthMm} ${easeMm}`}
          name={say.seamBetween(a, b, count)}
          tone={easeMm > noEaseMm ? 'warning' : undefined}
        >
          {easeMm > noEaseMm ? say.easeOf(printBoth(lengthMm, unit), easeMm) : say.bothSides(printBoth(lengthMm, unit))}
        </Reading>
      ))}
    </Section>
  );
}
const mostEases = 12;

const cell = { px: 0.5, py: 0.4, fontSize: 13, verticalAlign: 'top' } as const;

function List({ plan: { cutting }, settings: { fabrics }, unit }: { plan: QuiltPlan; settings: QuiltingSettings; unit: 'mm' | 'in' }) {
  return (
    <Section title={say.cuttingList}>
      <Table size="small" aria-label={say.cuttingList} sx={{ tableLayout: 'fixed' }}>
        <TableHead>
          <TableRow>
            <TableCell sx={{ ...cell, width: '36%' }}>{say.what}</TableCell>
            <TableCell sx={cell}>{say.cutAt(unit)}</TableCell>
            <TableCell sx={{ ...cell, width: '15%' }} align="right">
              {say.count}
            </TableCell>
            <TableCell sx={{ ...cell, width: '15%' }} align="right">
              {say.strips}
            </TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {cutting.rows.map((row) => (
            <TableRow key={`${row.what} ${row.fabric}`}>
              <TableCell sx={cell}>
                {row.what}
                <Typography variant="caption" color="textSecondary" sx={{ display: 'block', lineHeight: 1.25 }}>
                  {say.figureOf(row.figure, fabrics[row.fabric]?.name ?? '')}
                </Typography>
              </TableCell>
              <TableCell sx={{ ...cell, fontWeight: 600 }}>{cutText(row, unit)}</TableCell>
              <TableCell sx={cell} align="right">
                {row.count}
                {row.reversed > 0 && (
                  <Typography variant="caption" color="textSecondary" sx={{ display: 'block', lineHeight: 1.25 }}>
                    {say.reversed(row.reversed)}
                  </Typography>
                )}
              </TableCell>
              <TableCell sx={cell} align="right">
                {row.strips}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {cutting.rows.some(({ kind }) => kind === 'binding') && (
        <Reading name={say.bindingLength}>{say.inches(cutting.binding.lengthMm, unit)}</Reading>
      )}
    </Section>
  );
}
