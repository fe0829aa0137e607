'use client';
import PolylineOutlined from '@mui/icons-material/PolylineOutlined';
import StraightenOutlined from '@mui/icons-material/StraightenOutlined';
import type { CutPlan } from '@nuvet/core/make';
import type { OutlinesSettings } from '@nuvet/core/processes';
import { words } from '@/words';
import type { ProcessView } from '../process-view';
import { OutlinesPanel } from './OutlinesPanel';

export const outlinesView: ProcessView<OutlinesSettings, CutPlan> = {
  icon: PolylineOutlined,
  panels: [
    {
      name: 'allowance',
      word: words.makeReady.allowance,
      icon: StraightenOutlined,
      explanation: words.makeReady.allowanceForTheTool,
      Panel: OutlinesPanel,
    },
  ],
};
