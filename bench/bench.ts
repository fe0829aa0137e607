/**
 * Prints what Nuvet reaches: how exact, how fast, against a reference in the same run. Asserts nothing.
 * With --browser the running application is measured too, at the address in NUVET_ADDRESS.
 */
import { measureAccuracy } from './accuracy.ts';
import { measureBrowser } from './browser.ts';
import { measureColoursAndEdges } from './colours-and-edges.ts';
import { measureDieLines } from './die-lines.ts';
import { measureDrawing } from './drawing.ts';
import { measureFoam } from './foam.ts';
import { measureLines } from './lines.ts';
import { measureMaking } from './making.ts';
import { measureMilling } from './milling.ts';
import { measureNesting } from './nesting.ts';
import { measureOutside } from './outside.ts';
import { measurePencilSketches } from './pencil-sketches.ts';
import { measureQuilting } from './quilting.ts';
import { measureRendered } from './rendered.ts';
import { measureSaving } from './saving.ts';
import { measureScreenedPrints } from './screened-prints.ts';
import { measureSolids } from './solid.ts';
import { measureSpeed } from './speed.ts';
import { measureTray } from './tray.ts';
import { measureTrueUp } from './true-up.ts';

console.log('\nHow exact: truth scenes at 300 dpi, 0.0847 mm a pixel, tolerance 0.1 mm');
measureAccuracy();
console.log('\nLines, symmetries and hard conditions');
await measureLines();
measureDieLines();
console.log('\nColours, walls, ways along an edge, relations');
measureColoursAndEdges();
console.log('\nDrawn and corrected by hand');
measureDrawing();
console.log('\nProving and making ready');
await measureMaking(60);
console.log('\nMilling');
measureMilling();
measureQuilting();
measureFoam();
await measureSolids();
measureTray();
measureNesting();
console.log('\nOutlines drawn by others');
measureOutside();
await measureRendered();
measureScreenedPrints();
measurePencilSketches();
console.log('\nHow fast: A4 at 600 dpi, 35 megapixels, 150 shapes, one thread of Node');
await measureSpeed();
console.log('\nTruing up: one thread of Node');
await measureTrueUp();
if (process.argv.includes('--browser')) {
  console.log('\nSaving: a job of 20,000 segments in PostgreSQL');
  await measureSaving(process.env.NUVET_ADDRESS ?? 'http://127.0.0.1:3000', Number(process.env.NUVET_SERVER_PID));
  console.log('\nIn Chromium: the same sheet on the light table');
  await measureBrowser(process.env.NUVET_ADDRESS ?? 'http://127.0.0.1:3000');
}
