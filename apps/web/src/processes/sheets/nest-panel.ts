'use client';
/** The panel of every process that cuts from sheets: copies laid out on them. */
import ViewQuiltOutlined from '@mui/icons-material/ViewQuiltOutlined';
import { lazy } from 'react';
import { words } from '@/words';
import type { ProcessPanel } from '../process-view';
import { NestPanel } from './NestPanel';

export const nestPanel: ProcessPanel = {
  name: 'nest',
  word: words.sheets.nest,
  icon: ViewQuiltOutlined,
  explanation: words.sheets.nestExplanation,
  Panel: NestPanel,
  Scene: lazy(() => import('./SheetsScene')),
};
