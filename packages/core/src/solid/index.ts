export { commonVolume, joinedLess, loadSolids, meshOfSolid, partSphere, solidOf } from './booleans.ts';
export { type EdgePlace, type EdgeTreatment, edgePlaces } from './edge-treatment.ts';
export { type HeightMap, heightMapOf, mostPixels } from './height-map.ts';
export { eulerCharacteristic, type Mesh, type MeshSize, openEdges, sizeOf } from './mesh.ts';
export { type NarrowPlace, type PairFit, type PrintChecks, printChecks } from './print-checks.ts';
export { type Prism, type PrismRule, prismOf } from './prism.ts';
export type { PairedHalves } from './push-together.ts';
export { type GreyOnSheet, mostPlaces, reliefBlock, reliefSurface } from './relief.ts';
export {
  type BodyRule,
  type BodySetting,
  type EdgeSetting,
  largestEdgeMm,
  mostPairs,
  mostReliefs,
  mostRules,
  mostSpheres,
  mostTurned,
  type PairSetting,
  plainBody,
  plainPlayMm,
  plainSolid,
  type ReliefSetting,
  type SolidSettings,
  solidSchema,
  steepestDraft,
  wholeSolid,
} from './settings.ts';
export { type Contour, contourArea, Slicer, sectionArea } from './slicing.ts';
export { type SolidNote, type SolidPart, type SolidPlan, solidPlan } from './solid-plan.ts';
export { type Printed, type PrintedLayer, rimOff, virtualPrint } from './virtual-print.ts';
