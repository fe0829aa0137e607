export { type Deviation, deviationOf } from './deviation.ts';
export { fullSheetScene, plateScene, smoothScene, starScene, straightScene } from './figures.ts';
export { type DemoJob, demoJobs } from './heron-lane/demo-jobs.ts';
export { paperRule } from './paper-rule.ts';
export { jpegOf, pngOf } from './picture-file.ts';
export { type Random, randomFrom } from './random.ts';
export { type Scan, type ScanSettings, scanScene } from './scan.ts';
export { movedPiece, piece, type Scene, type ScenePiece } from './scene.ts';
export * from './shapes.ts';
