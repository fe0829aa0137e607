export { type Airfoil, AirfoilError, airfoilThrough, nacaAirfoil, nacaMeanLine, nacaThickness } from './airfoil.ts';
export { readAirfoil } from './airfoil-text.ts';
export { type Body, BodyError, type BodyViews, bodyOf, type KnownSection, volumeOf } from './body.ts';
export { type BodySection, reaches, type SectionProfile, type SectionRule, sectionOutline } from './body-section.ts';
export { type Burn, type BurnReading, burnFrom, burnLine } from './burn.ts';
export { type FoamNote, type FoamPlan, foamPlan } from './foam-plan.ts';
export { type FormerWire, formerWire } from './former-wire.ts';
export { matchedTicks } from './matched-ticks.ts';
export { halfThrough, profileOfOutline, profileThrough, SectionError } from './section-profile.ts';
export {
  type FoamSection,
  type FoamSettings,
  foamSchema,
  mostBoards,
  mostCutouts,
  mostDowels,
  mostSectionPoints,
  mostSections,
  mostSheetKinds,
  mostSlots,
  noView,
  plainFoam,
} from './settings.ts';
export { type SliceCount, sliceCounts } from './slice-counts.ts';
export { type Board, foamIn, mostSlices, type Slice, SliceError, type SliceSettings, slicesOf } from './slices.ts';
export { templateTicks } from './template-ticks.ts';
export { fastestTower, TowerError, type TowerPlace, type TowerSetUp, towerPath } from './towers.ts';
export { bedsOf, type WingBeds } from './wing-beds.ts';
export { type WingCut, type WingCutSettings, wingCut } from './wing-cut.ts';
export { CoreError, type CoreFace, coreFaces, coreOf, type SparSlot, type WingPanel } from './wing-panel.ts';
export { type WingNote, type WingPlan, wingPlan } from './wing-plan.ts';
export {
  longestCoordinates,
  mostReadings,
  mostSpars,
  plainWing,
  type WingSection,
  type WingSettings,
  wingSchema,
} from './wing-settings.ts';
export { type WirePlace, type WireSettings, wirePath } from './wire-path.ts';
