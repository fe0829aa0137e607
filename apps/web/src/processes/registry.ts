/**
 * What the page shows of each process. One line is all that a new one needs here.
 */
import { cncView } from './cnc/cnc-view';
import { foamView } from './foam/foam-view';
import { knifeView } from './knife/knife-view';
import { laserView } from './laser/laser-view';
import { outlinesView } from './outlines/outlines-view';
import { paperView } from './paper/paper-view';
import { planSheetView } from './plan-sheet/plan-sheet-view';
import type { AnyProcessView } from './process-view';
import { quiltingView } from './quilting/quilting-view';
import { solidView } from './solid/solid-view';
import { trayView } from './tray/tray-view';
import { wingView } from './wing/wing-view';

export const processViews: Readonly<Record<string, AnyProcessView>> = {
  laser: laserView,
  knife: knifeView,
  cnc: cncView,
  paper: paperView,
  quilting: quiltingView,
  foam: foamView,
  wing: wingView,
  tray: trayView,
  solid: solidView,
  'plan-sheet': planSheetView,
  outlines: outlinesView,
};
