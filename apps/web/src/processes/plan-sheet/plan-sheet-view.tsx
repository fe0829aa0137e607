'use client';
import ArticleOutlined from '@mui/icons-material/ArticleOutlined';
import StraightenOutlined from '@mui/icons-material/StraightenOutlined';
import type { PlanSheetSettings, SheetPlan } from '@nuvet/core/drafting';
import { lazy } from 'react';
import { words } from '@/words';
import type { ProcessView } from '../process-view';
import { DimensionsPanel } from './DimensionsPanel';
import { SheetPanel } from './SheetPanel';

const say = words.planSheet;
const PlanSheetScene = lazy(() => import('./PlanSheetScene'));

export const planSheetView: ProcessView<PlanSheetSettings, SheetPlan> = {
  icon: ArticleOutlined,
  hasNoMachine: true,
  panels: [
    { name: 'sheet', word: say.sheet, icon: ArticleOutlined, explanation: say.sheetExplanation, Panel: SheetPanel, Scene: PlanSheetScene },
    {
      name: 'dimensions',
      word: say.dimensions,
      icon: StraightenOutlined,
      explanation: say.dimensionsExplanation,
      Panel: DimensionsPanel,
      Scene: PlanSheetScene,
    },
  ],
};
