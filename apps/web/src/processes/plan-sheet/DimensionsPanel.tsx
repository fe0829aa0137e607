'use client';
/** Which dimensions are drawn, in which lengths, and from where positions count. */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Typography from '@mui/material/Typography';
import { mostMoved, type PlanSheetSettings, type SheetPlan } from '@nuvet/core/drafting';
import { Pick, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { PlanFault } from '../PlanFault';
import type { PanelProps } from '../process-view';

const say = words.planSheet;

export function DimensionsPanel({ open: { settings, set, plan } }: PanelProps<PlanSheetSettings, SheetPlan>) {
  const isShown = (is: boolean): 'yes' | 'no' => (is ? 'yes' : 'no');
  const texts = new Map((plan?.dimensions ?? []).map(({ name, kind, text }) => [name, { kind, text: text.text }]));
  return (
    <>
      <PlanFault />
      <Section title={say.dimensions}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Row>
            <Pick label={say.system} value={settings.system} words={say.systems} onPick={(system) => set({ system })} />
            <Pick label={say.datum} value={settings.datum} words={say.data} onPick={(datum) => set({ datum })} />
          </Row>
          <Row>
            {(['holes', 'radii', 'angles'] as const).map((what) => (
              <Pick
                key={what}
                label={say[what]}
                value={isShown(settings[what])}
                words={say.shown}
                onPick={(which) => set({ [what]: which === 'yes' })}
              />
            ))}
          </Row>
          <Typography variant="caption" color="textSecondary">
            {say.dimensionsAbout}
          </Typography>
          <Box sx={{ display: 'grid' }}>
            {(plan?.names ?? []).map((name) => {
              const drawn = texts.get(name);
              return (
                <FormControlLabel
                  key={name}
                  sx={{ mr: 0 }}
                  control={
                    <Checkbox
                      size="small"
                      checked={!settings.leftOut.includes(name)}
                      onChange={(_, isWanted) =>
                        set({
                          leftOut: isWanted
                            ? settings.leftOut.filter((other) => other !== name)
                            : [...settings.leftOut, name].slice(-mostMoved),
                        })
                      }
                    />
                  }
                  label={<Typography variant="body2">{drawn ? say.dimension(say.kinds[drawn.kind], drawn.text) : name}</Typography>}
                />
              );
            })}
          </Box>
          {settings.leftOut.length + settings.moved.length > 0 && (
            <Button size="small" onClick={() => set({ leftOut: [], moved: [] })}>
              {say.putBack}
            </Button>
          )}
        </Box>
      </Section>
    </>
  );
}
