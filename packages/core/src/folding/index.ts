export { bleedOutlines } from './allowances.ts';
export { type DieLine, dieLineOf } from './die-line.ts';
export { collisions, type FoldTree, foldedPanels, foldTree, type Motion, moved3, type Point3 } from './folding.ts';
export { boxChecked, type Hinge, type Panel, type Panels, panelSize, panelsIn, panelsOf } from './panels.ts';
