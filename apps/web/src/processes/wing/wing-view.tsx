'use client';
import AirlinesOutlined from '@mui/icons-material/AirlinesOutlined';
import ContentCutOutlined from '@mui/icons-material/ContentCutOutlined';
import LinearScaleOutlined from '@mui/icons-material/LinearScaleOutlined';
import StraightenOutlined from '@mui/icons-material/StraightenOutlined';
import type { WingPlan, WingSettings } from '@nuvet/core/foam';
import { lazy } from 'react';
import { words } from '@/words';
import type { ProcessView } from '../process-view';
import { CutPanel } from './CutPanel';
import { PanelPanel } from './PanelPanel';
import { WirePanel } from './WirePanel';

const say = words.wing;
const WingScene = lazy(() => import('./WingScene'));

export const wingView: ProcessView<WingSettings, WingPlan> = {
  icon: AirlinesOutlined,
  hasNoMachine: true,
  panels: [
    { name: 'panel', word: say.panel, icon: StraightenOutlined, explanation: say.panelExplanation, Panel: PanelPanel, Scene: WingScene },
    { name: 'cut', word: say.cut, icon: ContentCutOutlined, explanation: say.cutExplanation, Panel: CutPanel, Scene: WingScene },
    { name: 'wire', word: say.wire, icon: LinearScaleOutlined, explanation: say.wireExplanation, Panel: WirePanel, Scene: WingScene },
  ],
};
