'use client';
import DescriptionOutlined from '@mui/icons-material/DescriptionOutlined';
import PrintOutlined from '@mui/icons-material/PrintOutlined';
import ViewInArOutlined from '@mui/icons-material/ViewInArOutlined';
import type { Tiling } from '@nuvet/core/make';
import type { PaperSettings } from '@nuvet/core/processes';
import { lazy } from 'react';
import { useMaking } from '@/table/making-store';
import { words } from '@/words';
import type { ProcessView } from '../process-view';
import { drawPages } from './draw-pages';
import { FoldPanel } from './FoldPanel';
import { PrintPanel } from './PrintPanel';

export const paperView: ProcessView<PaperSettings, Tiling> = {
  icon: DescriptionOutlined,
  showsPicture: ({ withPicture }) => withPicture,
  panels: [
    {
      name: 'print',
      word: words.makeReady.print,
      icon: PrintOutlined,
      explanation: words.makeReady.fullSizeOnSheetsOfPaper,
      Panel: PrintPanel,
      draw: (canvas, view, { plan }) => plan && drawPages(canvas, view, plan, useMaking.getState().dragged?.at ?? null),
      drag: { handles: ({ place }) => [{ id: 'pages', at: place, box: null }], to: ({ at }) => ({ place: at }), isFollowed: true },
    },
    {
      name: 'fold',
      word: words.makeReady.fold,
      icon: ViewInArOutlined,
      explanation: words.makeReady.foldADieLineUpAnd,
      Panel: FoldPanel,
      Scene: lazy(() => import('./FoldView')),
    },
  ],
};
