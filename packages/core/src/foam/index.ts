export { type Airfoil, AirfoilError, airfoilThrough, nacaAirfoil, nacaMeanLine, nacaThickness } from './airfoil.ts';
export { readAirfoil } from './airfoil-text.ts';
export { type Burn, type BurnReading, burnFrom } from './burn.ts';
export { templateTicks } from './template-ticks.ts';
export { fastestTower, TowerError, type TowerPlace, type TowerSetUp, towerPath } from './towers.ts';
export { type WingCut, type WingCutSettings, wingCut } from './wing-cut.ts';
export { CoreError, type CoreFace, coreFaces, coreOf, type SparSlot, type WingPanel } from './wing-panel.ts';
export { type WirePlace, type WireSettings, wirePath } from './wire-path.ts';
