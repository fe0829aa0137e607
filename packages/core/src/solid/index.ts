export { commonVolume, joinedLess, loadSolids, meshOfSolid, partSphere, solidOf } from './booleans.ts';
export { type EdgePlace, type EdgeTreatment, edgePlaces } from './edge-treatment.ts';
export { eulerCharacteristic, type Mesh, type MeshSize, openEdges, sizeOf } from './mesh.ts';
export { type Prism, type PrismRule, prismOf } from './prism.ts';
export {
  type BodyRule,
  type BodySetting,
  type EdgeSetting,
  largestEdgeMm,
  mostRules,
  mostSpheres,
  mostTurned,
  plainBody,
  plainSolid,
  type SolidSettings,
  solidSchema,
  steepestDraft,
} from './settings.ts';
export { type SolidNote, type SolidPart, type SolidPlan, solidPlan } from './solid-plan.ts';
