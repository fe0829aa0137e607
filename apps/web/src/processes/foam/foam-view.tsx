'use client';
import DashboardOutlined from '@mui/icons-material/DashboardOutlined';
import DonutLargeOutlined from '@mui/icons-material/DonutLargeOutlined';
import LayersOutlined from '@mui/icons-material/LayersOutlined';
import LinearScaleOutlined from '@mui/icons-material/LinearScaleOutlined';
import SurfingOutlined from '@mui/icons-material/SurfingOutlined';
import ViewInArOutlined from '@mui/icons-material/ViewInArOutlined';
import ViewWeekOutlined from '@mui/icons-material/ViewWeekOutlined';
import type { FoamPlan, FoamSettings } from '@nuvet/core/foam';
import type { SheetLine } from '@nuvet/core/processes';
import { lazy } from 'react';
import { useMaking } from '@/table/making-store';
import { words } from '@/words';
import { drawLines } from '../draw-lines';
import type { ProcessView } from '../process-view';
import { BodyPanel } from './BodyPanel';
import { SectionsPanel } from './SectionsPanel';
import { SheetsPanel } from './SheetsPanel';
import { SlicesPanel } from './SlicesPanel';
import { SpacePanel } from './SpacePanel';
import { drawViews, viewHandles, withViewAt } from './views-on-table';
import { WirePanel } from './WirePanel';

const say = words.foam;
const FormerSheet = lazy(() => import('./FormerSheet'));
const SectionScene = lazy(() => import('./SectionScene'));
const SheetsScene = lazy(() => import('../sheets/SheetsScene'));
const FormerInBlock = lazy(() => import('./FormerInBlock'));
const BodyInSpace = lazy(() => import('./BodyInSpace'));

const drawn = new WeakMap<FoamPlan, readonly SheetLine[]>();
/** Kept by the plan: what is drawn of it is the same from frame to frame. */
function linesOf(plan: FoamPlan, drawing: (plan: FoamPlan) => readonly SheetLine[]): readonly SheetLine[] {
  const lines = drawn.get(plan) ?? drawing(plan);
  drawn.set(plan, lines);
  return lines;
}

export const foamView: ProcessView<FoamSettings, FoamPlan> = {
  icon: LayersOutlined,
  hasNoMachine: true,
  panels: [
    {
      name: 'body',
      word: say.body,
      icon: SurfingOutlined,
      explanation: say.bodyExplanation,
      Panel: BodyPanel,
      draw(canvas, view, { plan, kind }) {
        if (!plan) return;
        drawLines(canvas, view, linesOf(plan, kind.drawing));
        drawViews(canvas, view, plan, useMaking.getState().dragged);
      },
      drag: { handles: viewHandles, to: withViewAt, isFollowed: false },
    },
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
