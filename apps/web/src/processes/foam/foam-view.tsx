'use client';
import DashboardOutlined from '@mui/icons-material/DashboardOutlined';
import DonutLargeOutlined from '@mui/icons-material/DonutLargeOutlined';
import LayersOutlined from '@mui/icons-material/LayersOutlined';
import LinearScaleOutlined from '@mui/icons-material/LinearScaleOutlined';
import SurfingOutlined from '@mui/icons-material/SurfingOutlined';
import ViewInArOutlined from '@mui/icons-material/ViewInArOutlined';
import ViewWeekOutlined from '@mui/icons-material/ViewWeekOutlined';
import type { FoamPlan, FoamSettings } from '@nuvet/core/foam';
import { lazy } from 'react';
import { words } from '@/words';
import type { ProcessView } from '../process-view';
import { BodyPanel } from './BodyPanel';
import { SectionsPanel } from './SectionsPanel';
import { SheetsPanel } from './SheetsPanel';
import { SlicesPanel } from './SlicesPanel';
import { SpacePanel } from './SpacePanel';
import { WirePanel } from './WirePanel';

const say = words.foam;
const FormerSheet = lazy(() => import('./FormerSheet'));
const SectionScene = lazy(() => import('./SectionScene'));
const SheetsScene = lazy(() => import('./SheetsScene'));
const FormerInBlock = lazy(() => import('./FormerInBlock'));
const BodyInSpace = lazy(() => import('./BodyInSpace'));

export const foamView: ProcessView<FoamSettings, FoamPlan> = {
  icon: LayersOutlined,
  hasNoMachine: true,
  panels: [
    { name: 'body', word: say.body, icon: SurfingOutlined, explanation: say.bodyExplanation, Panel: BodyPanel },
    {
      name: 'sections',
      word: say.sectionsPanel,
      icon: DonutLargeOutlined,
      explanation: say.sectionsExplanation,
      Panel: SectionsPanel,
      Scene: SectionScene,
    },
    {
      name: 'slices',
      word: say.slices,
      icon: ViewWeekOutlined,
      explanation: say.slicesExplanation,
      Panel: SlicesPanel,
      Scene: FormerSheet,
    },
    {
      name: 'sheets',
      word: say.sheetsPanel,
      icon: DashboardOutlined,
      explanation: say.sheetsExplanation,
      Panel: SheetsPanel,
      Scene: SheetsScene,
    },
    {
      name: 'wire',
      word: say.wirePanel,
      icon: LinearScaleOutlined,
      explanation: say.wirePanelExplanation,
      Panel: WirePanel,
      Scene: FormerInBlock,
    },
    { name: 'space', word: say.space, icon: ViewInArOutlined, explanation: say.spaceExplanation, Panel: SpacePanel, Scene: BodyInSpace },
  ],
};
