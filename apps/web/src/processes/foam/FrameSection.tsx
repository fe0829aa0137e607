'use client';
/** A frame that is covered: formers at a distance, smaller by the skin, with lightening holes. */
import Box from '@mui/material/Box';
import type { FoamPlan, FoamSettings } from '@nuvet/core/foam';
import { Measure, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import type { OpenProcess } from '../process-view';

const say = words.foam;

export function FrameSection({ open: { settings, set }, unit }: { open: OpenProcess<FoamSettings, FoamPlan>; unit: 'mm' | 'in' }) {
  return (
    <Section title={say.frame}>
      <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
        <Measure
          label={say.spacing}
          mm={settings.spacingMm}
          unit={unit}
          placeholder={say.faceToFace}
          onEmpty={() => set({ spacingMm: null })}
          least={1}
          most={5000}
          onMm={(mm) => set({ spacingMm: mm })}
        />
        <Row>
          <Measure label={say.skin} mm={settings.skinMm} unit={unit} range="from zero" most={100} onMm={(mm) => set({ skinMm: mm })} />
          <Measure
            label={say.web}
            mm={settings.webMm}
            unit={unit}
            placeholder={say.noHole}
            onEmpty={() => set({ webMm: null })}
            least={1}
            most={1000}
            onMm={(mm) => set({ webMm: mm })}
          />
        </Row>
      </Box>
    </Section>
  );
}
