'use client';
import HandymanOutlined from '@mui/icons-material/HandymanOutlined';
import HeightOutlined from '@mui/icons-material/HeightOutlined';
import ViewModuleOutlined from '@mui/icons-material/ViewModuleOutlined';
import type { TrayPlan, TraySettings } from '@nuvet/core/tray';
import { lazy } from 'react';
import { words } from '@/words';
import type { ProcessView } from '../process-view';
import { DrawerPanel } from './DrawerPanel';
import { ObjectsPanel } from './ObjectsPanel';

const say = words.tray;
const DrawerScene = lazy(() => import('./DrawerScene'));

export const trayView: ProcessView<TraySettings, TrayPlan> = {
  icon: HandymanOutlined,
  hasNoMachine: true,
  panels: [
    { name: 'objects', word: say.objects, icon: HeightOutlined, explanation: say.objectsExplanation, Panel: ObjectsPanel },
    {
      name: 'drawer',
      word: say.drawer,
      icon: ViewModuleOutlined,
      explanation: say.drawerExplanation,
      Panel: DrawerPanel,
      Scene: DrawerScene,
    },
  ],
};
