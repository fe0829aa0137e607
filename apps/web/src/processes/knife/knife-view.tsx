'use client';
import CarpenterOutlined from '@mui/icons-material/CarpenterOutlined';
import ContentCutOutlined from '@mui/icons-material/ContentCutOutlined';
import type { CutPlan } from '@nuvet/core/make';
import type { KnifeSettings } from '@nuvet/core/processes';
import { words } from '@/words';
import type { ProcessView } from '../process-view';
import { KnifePanel } from './KnifePanel';

export const knifeView: ProcessView<KnifeSettings, CutPlan> = {
  icon: CarpenterOutlined,
  panels: [
    {
      name: 'cut',
      word: words.makeReady.cut,
      icon: ContentCutOutlined,
      explanation: words.makeReady.overcutTabsPressureAndSpeed,
      Panel: KnifePanel,
    },
  ],
};
