'use client';
import CompareOutlined from '@mui/icons-material/CompareOutlined';
import ContentCutOutlined from '@mui/icons-material/ContentCutOutlined';
import DashboardOutlined from '@mui/icons-material/DashboardOutlined';
import GestureOutlined from '@mui/icons-material/GestureOutlined';
import GridOnOutlined from '@mui/icons-material/GridOnOutlined';
import PaletteOutlined from '@mui/icons-material/PaletteOutlined';
import PushPinOutlined from '@mui/icons-material/PushPinOutlined';
import ViewQuiltOutlined from '@mui/icons-material/ViewQuiltOutlined';
import type { QuiltingSettings, QuiltPlan } from '@nuvet/core/quilting';
import { lazy } from 'react';
import { words } from '@/words';
import type { ProcessView } from '../process-view';
import { BlockPanel } from './BlockPanel';
import { CuttingPanel } from './CuttingPanel';
import { FabricsPanel } from './FabricsPanel';
import { LinePanel } from './LinePanel';
import { NeedlePanel } from './NeedlePanel';
import { drawBlock, drawTriedLine, patchHandles, withFabricCarried, withPatchPainted } from './patches-on-table';
import { QuiltPanel } from './QuiltPanel';
import { TryOutPanel } from './TryOutPanel';

const say = words.quilting;
const QuiltView = lazy(() => import('./QuiltView'));

export const quiltingView: ProcessView<QuiltingSettings, QuiltPlan> = {
  icon: ViewQuiltOutlined,
  hasNoMachine: true,
  panels: [
    {
      name: 'block',
      word: say.block,
      icon: GridOnOutlined,
      explanation: say.blockExplanation,
      Panel: BlockPanel,
      draw: (canvas, view, { plan, settings }) => plan && drawBlock(canvas, view, plan, settings),
    },
    {
      name: 'fabrics',
      word: say.fabrics,
      icon: PaletteOutlined,
      explanation: say.fabricsExplanation,
      Panel: FabricsPanel,
      draw: (canvas, view, { plan, settings }) => plan && drawBlock(canvas, view, plan, settings),
      drag: { handles: patchHandles, to: withFabricCarried, click: withPatchPainted, isFollowed: false },
    },
    {
      name: 'cutting',
      word: say.cutting,
      icon: ContentCutOutlined,
      explanation: say.cuttingExplanation,
      Panel: CuttingPanel,
      draw: (canvas, view, { plan, settings }) => plan && drawBlock(canvas, view, plan, settings),
    },
    {
      name: 'quilt',
      word: say.quilt,
      icon: DashboardOutlined,
      explanation: say.quiltExplanation,
      Panel: QuiltPanel,
      Scene: QuiltView,
    },
    {
      name: 'line',
      word: say.line,
      icon: GestureOutlined,
      explanation: say.lineExplanation,
      Panel: LinePanel,
      Scene: QuiltView,
    },
    {
      name: 'try-out',
      word: say.tryOut,
      icon: CompareOutlined,
      explanation: say.tryOutExplanation,
      Panel: TryOutPanel,
      draw: (canvas, view, { plan, settings }) => plan && drawTriedLine(canvas, view, plan, settings),
    },
    {
      name: 'needle',
      word: say.needle,
      icon: PushPinOutlined,
      explanation: say.needleExplanation,
      Panel: NeedlePanel,
      Scene: QuiltView,
    },
  ],
};
