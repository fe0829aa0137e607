export { dxfCurveToleranceMm, writeDxf } from './dxf.ts';
export { headerBytes, type PictureHeader, readPictureHeader, uprightSize } from './picture-header.ts';
export { EmptyFileError, type FilePiece } from './placement.ts';
export { pathData, writeSvg } from './svg.ts';
