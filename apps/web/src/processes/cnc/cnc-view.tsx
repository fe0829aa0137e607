'use client';
import BuildOutlined from '@mui/icons-material/BuildOutlined';
import FormatListNumberedOutlined from '@mui/icons-material/FormatListNumberedOutlined';
import PrecisionManufacturingOutlined from '@mui/icons-material/PrecisionManufacturingOutlined';
import TuneOutlined from '@mui/icons-material/TuneOutlined';
import ViewInArOutlined from '@mui/icons-material/ViewInArOutlined';
import type { MillingSettings, MillPlan } from '@nuvet/core/milling';
import type { SheetLine } from '@nuvet/core/processes';
import { lazy } from 'react';
import { useMaking } from '@/table/making-store';
import { words } from '@/words';
import { drawLines } from '../draw-lines';
import { drawBurnt } from '../machine/draw-burnt';
import type { ProcessView } from '../process-view';
import { MillPanel } from './MillPanel';
import { OperationsPanel } from './OperationsPanel';
import { SetUpPanel } from './SetUpPanel';
import { TrialPanel } from './TrialPanel';
import {
  clampHandles,
  drawCorners,
  drawSetUp,
  drawTabs,
  operationHandles,
  withClampAt,
  withCornerClicked,
  withTabAt,
} from './table-handles';

const say = words.cnc;

const drawn = new WeakMap<MillPlan, readonly SheetLine[]>();
/** Kept by the plan: what is drawn of it is the same from frame to frame. */
function linesOf(plan: MillPlan, drawing: (plan: MillPlan) => readonly SheetLine[]): readonly SheetLine[] {
  const lines = drawn.get(plan) ?? drawing(plan);
  drawn.set(plan, lines);
  return lines;
}

export const cncView: ProcessView<MillingSettings, MillPlan> = {
  icon: BuildOutlined,
  Proof: lazy(() => import('./TrialProof').then(({ TrialProof }) => ({ default: TrialProof }))),
  panels: [
    {
      name: 'operations',
      word: say.operations,
      icon: FormatListNumberedOutlined,
      explanation: say.operationsExplanation,
      Panel: OperationsPanel,
      draw(canvas, view, { plan, kind }) {
        if (!plan) return;
        drawLines(canvas, view, linesOf(plan, kind.drawing));
        drawCorners(canvas, view, plan);
        drawTabs(canvas, view, plan, useMaking.getState().dragged);
      },
      drag: {
        handles: operationHandles,
        to: (dragged, plan, settings) => withTabAt(settings, plan, dragged),
        click: (handle, plan, settings) => withCornerClicked(settings, plan, handle),
        isFollowed: false,
      },
    },
    {
      name: 'trial',
      word: say.trial,
      icon: ViewInArOutlined,
      explanation: say.trialExplanation,
      Panel: TrialPanel,
      Scene: lazy(() => import('./StockView')),
    },
    {
      name: 'set-up',
      word: say.setUp,
      icon: TuneOutlined,
      explanation: say.setUpExplanation,
      Panel: SetUpPanel,
      draw: (canvas, view, { plan, settings }) => drawSetUp(canvas, view, plan, settings, useMaking.getState().dragged),
      drag: {
        handles: (_, settings) => clampHandles(settings),
        to: (dragged, _, settings) => withClampAt(settings, dragged),
        isFollowed: false,
      },
    },
    {
      name: 'mill',
      word: say.mill,
      icon: PrecisionManufacturingOutlined,
      explanation: say.millExplanation,
      Panel: MillPanel,
      draw(canvas, view, { plan }, pieces) {
        const { burnt } = useMaking.getState();
        const narrowest = plan?.runs.reduce((least, { tool }) => Math.min(least, tool.diameterMm), Infinity) ?? 1;
        if (burnt) drawBurnt(canvas, view, pieces, burnt, narrowest / 3);
      },
    },
  ],
};
