'use client';
/** Where the camera was, and how high each object is. */
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Typography from '@mui/material/Typography';
import { printBoth } from '@nuvet/core/length';
import type { TrayPlan, TraySettings } from '@nuvet/core/tray';
import { useJob } from '@/job/job-store';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { PlanFault } from '../PlanFault';
import { PlanNotes } from '../PlanNotes';
import type { PanelProps } from '../process-view';
import { ChosenObject } from './ChosenObject';
import { chooseObject, useChosenObject } from './chosen-object';
import { objectOf, withObject } from './tray-objects';

const say = words.tray;

export function ObjectsPanel({ open }: PanelProps<TraySettings, TrayPlan>) {
  const unit = useJob((s) => s.job.unit);
  const chosenId = useChosenObject((s) => s.pieceId);
  const { settings, set, plan } = open;
  const chosen = plan?.pockets.find(({ pieceId }) => pieceId === chosenId);
  return (
    <>
      <Section title={say.camera}>
        {plan?.camera ? (
          <>
            <Typography variant="body2">
              {plan.camera.heightErrorMm === null
                ? say.cameraTyped(printBoth(plan.camera.camera.z, unit))
                : say.cameraFound(printBoth(plan.camera.camera.z, unit), printBoth(2 * plan.camera.heightErrorMm, unit))}
            </Typography>
            <Reading name={say.tilt}>{say.degrees(((plan.camera.camera.tilt * 180) / Math.PI).toFixed(1))}</Reading>
          </>
        ) : (
          plan && <Typography variant="body2">{say.cameraUnknown}</Typography>
        )}
        <Box sx={{ mt: 1 }}>
          <Measure
            label={say.cameraHeight}
            mm={settings.cameraMm}
            unit={unit}
            placeholder={say.fromPicture}
            onEmpty={() => set({ cameraMm: null })}
            least={20}
            most={20_000}
            onMm={(mm) => set({ cameraMm: mm })}
          />
        </Box>
      </Section>
      <Section title={say.forAll}>
        <Box sx={{ mt: 1 }}>
          <Row>
            <Measure
              label={say.height}
              mm={settings.heightMm}
              unit={unit}
              range="from zero"
              most={1000}
              onMm={(mm) => set({ heightMm: mm })}
            />
            <Pick label={say.edge} value={settings.edge} words={say.edges} onPick={(edge) => set({ edge })} />
          </Row>
        </Box>
      </Section>
      <PlanFault />
      {plan && plan.pockets.length > 0 && (
        <Section title={say.each}>
          <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1 }}>
            {say.eachAbout}
          </Typography>
          <Box sx={{ display: 'grid', gap: 0.75 }}>
            {plan.pockets.map(({ pieceId, number, name, heightMm, movedMm }) => (
              <Box key={pieceId} sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) 118px', gap: 1, alignItems: 'center' }}>
                <ButtonBase
                  onClick={() => chooseObject(pieceId)}
                  aria-pressed={pieceId === chosenId}
                  sx={{
                    display: 'block',
                    textAlign: 'left',
                    minHeight: 40,
                    px: 1,
                    borderRadius: 1,
                    bgcolor: pieceId === chosenId ? 'action.selected' : 'transparent',
                  }}
                >
                  <Typography variant="body2" noWrap>
                    {say.chosen(number, name)}
                  </Typography>
                  <Typography variant="caption" color="textSecondary">
                    {say.corrected(printBoth(movedMm, unit))}
                  </Typography>
                </ButtonBase>
                <Measure
                  label={say.height}
                  spoken={say.heightOf(name)}
                  mm={heightMm}
                  unit={unit}
                  range="from zero"
                  onEmpty={() => set(withObject(settings, pieceId, { heightMm: null }))}
                  most={1000}
                  onMm={(mm) => set(withObject(settings, pieceId, { heightMm: mm }))}
                />
              </Box>
            ))}
          </Box>
        </Section>
      )}
      {chosen && <ChosenObject pocket={chosen} own={objectOf(settings, chosen.pieceId)} open={open} />}
      {plan && <PlanNotes notes={plan.notes} />}
    </>
  );
}
