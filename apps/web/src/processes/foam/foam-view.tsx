'use client';
import LayersOutlined from '@mui/icons-material/LayersOutlined';
import SurfingOutlined from '@mui/icons-material/SurfingOutlined';
import ViewWeekOutlined from '@mui/icons-material/ViewWeekOutlined';
import type { FoamPlan, FoamSettings } from '@nuvet/core/foam';
import { lazy } from 'react';
import { words } from '@/words';
import type { ProcessView } from '../process-view';
import { BodyPanel } from './BodyPanel';
import { SlicesPanel } from './SlicesPanel';

const say = words.foam;
const FormerSheet = lazy(() => import('./FormerSheet'));

export const foamView: ProcessView<FoamSettings, FoamPlan> = {
  icon: LayersOutlined,
  hasNoMachine: true,
  panels: [
    { name: 'body', word: say.body, icon: SurfingOutlined, explanation: say.bodyExplanation, Panel: BodyPanel },
    {
      name: 'slices',
      word: say.slices,
      icon: ViewWeekOutlined,
      explanation: say.slicesExplanation,
      Panel: SlicesPanel,
      Scene: FormerSheet,
    },
  ],
};
