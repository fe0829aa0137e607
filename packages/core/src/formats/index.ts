export { type FileDeviation, farthest, fileDeviation, placesAlong } from './deviation.ts';
export { DrawingError, type DrawingRead, type DrawnOutline, piecesOfDrawing } from './drawing.ts';
export { type DxfOptions, dxfCurveToleranceMm, writeDxf } from './dxf.ts';
export { readDxf } from './dxf-reading.ts';
export { type GcodeOptions, type Toolpath, writeGcode } from './gcode.ts';
export { GcodeError, type GcodeRead, readGcode } from './gcode-reading.ts';
export { PlotError, plotterUnitMm, readHpgl, writeHpgl } from './hpgl.ts';
export { readPlot } from './hpgl-drawing.ts';
export {
  type FileMesh,
  MeshFileError,
  type NamedMesh,
  read3mf,
  readGlb,
  readObj,
  readPly,
  readStl,
  write3mf,
  writeGlb,
  writeObj,
  writePly,
  writeStl,
} from './mesh-files.ts';
export { onMachine, type ProgramOptions, type ProgramRun, writeMillingProgram } from './milling-program.ts';
export { type ReadProgram, type ReadTool, readMillingProgram } from './milling-reading.ts';
export {
  type CardPage,
  type ProofFacts,
  readPdfPaths,
  type Underlay,
  writePdf,
  writeProofSheet,
  writeScaleCard,
  writeTiles,
} from './pdf-files.ts';
export { headerBytes, isTrustworthy, type PictureHeader, readPictureHeader } from './picture-header.ts';
export { EmptyFileError, type FilePiece } from './placement.ts';
export { type GreyPixels, PngError, readGreyPng, writePng } from './png.ts';
export { type ProofRow, proofRows } from './proof-rows.ts';
export { writeHeightFieldStl } from './stl.ts';
export { pathData, writeSvg } from './svg.ts';
export { cssPxMm } from './svg-lengths.ts';
export { readPathData } from './svg-path-data.ts';
export { readSvg } from './svg-reading.ts';
export { type TiffPage, tiffPages } from './tiff-pages.ts';
export {
  readWireProgram,
  type TowerAxes,
  towerAxes,
  WireProgramError,
  type WireProgramOptions,
  wireProgramDeviation,
  writeWireProgram,
} from './wire-program.ts';
