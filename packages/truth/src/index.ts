export { onScaleCard, squaredPrint } from './card-scene.ts';
export { type CartonScan, cartonScan } from './carton-scan.ts';
export { type Carton, type CartonKind, type CartonSize, cartonInk, cartonKinds, cartonOf, type Dashing, dashedAlong } from './cartons.ts';
export { badgeBorders, badgeSheet } from './colour-figures.ts';
export { type ColourArea, type ColourSheet, scanColours } from './colour-scan.ts';
export { type Deviation, deviationOf } from './deviation.ts';
export { fullSheetScene, plateScene, smoothScene, starScene, straightScene } from './figures.ts';
export {
  type DemoJob,
  type DemoMilling,
  type DemoPhoto,
  type DemoPrint,
  demoJobs,
  demoPhotos,
  demoPrints,
} from './heron-lane/demo-jobs.ts';
export { type DemoDrawn, demoDrawn } from './heron-lane/drawn-jobs.ts';
export { type FoundersTool, foundersSheet, foundersTools } from './heron-lane/founders-tools.ts';
export { keepScansIn, type ScanStore } from './kept-scans.ts';
export { dashedStroke, type LineScene, linesScene, penStroke } from './line-figures.ts';
export { paperRule } from './paper-rule.ts';
export { type PencilScan, pencilScan } from './pencil-scan.ts';
export { type Photo, type PhotoSettings, photographScene, type SpacePoint, type StandingPart } from './photo.ts';
export { colourPngOf, jpegOf, pngOf, tiffOf } from './picture-file.ts';
export { cutSheet } from './puzzles.ts';
export { normalTable, type Random, randomFrom } from './random.ts';
export { type Scan, type ScanSettings, scanScene } from './scan.ts';
export { movedPiece, nestingOf, piece, type Scene, type ScenePiece } from './scene.ts';
export { type ScreenedScan, screenedScan } from './screened-scan.ts';
export * from './shapes.ts';
