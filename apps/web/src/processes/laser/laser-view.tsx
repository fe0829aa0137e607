'use client';
import ContentCutOutlined from '@mui/icons-material/ContentCutOutlined';
import FlareOutlined from '@mui/icons-material/FlareOutlined';
import PrecisionManufacturingOutlined from '@mui/icons-material/PrecisionManufacturingOutlined';
import type { CutPlan } from '@nuvet/core/make';
import type { LaserSettings } from '@nuvet/core/processes';
import { useMaking } from '@/table/making-store';
import { words } from '@/words';
import { drawBurnt } from '../machine/draw-burnt';
import type { ProcessView } from '../process-view';
import { CutterPanel } from './CutterPanel';
import { LaserPanel } from './LaserPanel';

export const laserView: ProcessView<LaserSettings, CutPlan> = {
  icon: FlareOutlined,
  panels: [
    {
      name: 'cut',
      word: words.makeReady.cut,
      icon: ContentCutOutlined,
      explanation: words.makeReady.kerfOrderTabsPowerAndSpeed,
      Panel: LaserPanel,
    },
    {
      name: 'cutter',
      word: words.makeReady.cutter,
      icon: PrecisionManufacturingOutlined,
      explanation: words.makeReady.sendItToTheCutterAnd,
      Panel: CutterPanel,
      draw(canvas, view, { settings }, pieces) {
        const { burnt } = useMaking.getState();
        if (burnt) drawBurnt(canvas, view, pieces, burnt, settings.kerfMm);
      },
    },
  ],
};
