/**
 * The processes that there are. One line is all that a new one needs here.
 */
import { cnc } from './cnc/cnc.ts';
import { foam } from './foam/foam.ts';
import { knife } from './knife/knife.ts';
import { laser } from './laser/laser.ts';
import { outlines } from './outlines/outlines.ts';
import { paper } from './paper/paper.ts';
import { planSheet } from './plan-sheet/plan-sheet.ts';
import type { AnyProcess } from './process.ts';
import { quilting } from './quilting/quilting.ts';
import { solid } from './solid/solid.ts';
import { tray } from './tray/tray.ts';
import { wing } from './wing/wing.ts';

export const processKinds: Readonly<Record<string, AnyProcess>> = {
  laser,
  knife,
  cnc,
  paper,
  quilting,
  foam,
  wing,
  tray,
  solid,
  'plan-sheet': planSheet,
  outlines,
};
export const processNames = Object.keys(processKinds);
