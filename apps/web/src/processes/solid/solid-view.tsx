'use client';
import LayersOutlined from '@mui/icons-material/LayersOutlined';
import PrintOutlined from '@mui/icons-material/PrintOutlined';
import ViewInArOutlined from '@mui/icons-material/ViewInArOutlined';
import type { SolidPlan, SolidSettings } from '@nuvet/core/solid';
import { lazy } from 'react';
import { words } from '@/words';
import type { ProcessView } from '../process-view';
import { BodiesPanel } from './BodiesPanel';
import { MorePanel } from './MorePanel';
import { PrintPanel } from './PrintPanel';

const say = words.solid;
const SolidInSpace = lazy(() => import('./SolidInSpace'));

export const solidView: ProcessView<SolidSettings, SolidPlan> = {
  icon: ViewInArOutlined,
  hasNoMachine: true,
  panels: [
    {
      name: 'bodies',
      word: say.bodies,
      icon: ViewInArOutlined,
      explanation: say.bodiesExplanation,
      Panel: BodiesPanel,
      Scene: SolidInSpace,
    },
    { name: 'more', word: say.more, icon: LayersOutlined, explanation: say.moreExplanation, Panel: MorePanel, Scene: SolidInSpace },
    { name: 'print', word: say.print, icon: PrintOutlined, explanation: say.printExplanation, Panel: PrintPanel, Scene: SolidInSpace },
  ],
};
