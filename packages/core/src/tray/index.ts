export { reachAlong } from './pocket.ts';
export { mostLayers, mostObjects, plainTray, type TrayObject, type TraySettings, trayLayouts, traySchema } from './settings.ts';
export { snappedInTray, type TraySnap } from './snapping.ts';
export { drawnByTray, placeAt, type TrayLayer, type TrayNote, type TrayPlan, type TrayPocket, trayPlan } from './tray-plan.ts';
export { type Area, type EdgeShape, type Eye, edgeShapes, trueOutline } from './true-outline.ts';
