import { drafting } from './drafting.ts';
import { figures } from './figures.ts';
import { files } from './files.ts';
import { fixes } from './fixes.ts';
import { foam } from './foam.ts';
import { folding } from './folding.ts';
import { job } from './job.ts';
import { lengths } from './lengths.ts';
import { make } from './make.ts';
import { milling } from './milling.ts';
import { quilting } from './quilting.ts';
import { shelf } from './shelf.ts';
import { solid } from './solid.ts';
import { tray } from './tray.ts';
import { trueUp } from './true-up.ts';

/** Every text of the core that a person reads, by what it is about. */
export const english = {
  fixes,
  job,
  lengths,
  trueUp,
  figures,
  folding,
  make,
  milling,
  quilting,
  foam,
  files,
  shelf,
  solid,
  tray,
  drafting,
};
