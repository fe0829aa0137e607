export { DrawingError, type DrawingRead, type DrawnOutline, piecesOfDrawing } from './drawing.ts';
export { dxfCurveToleranceMm, writeDxf } from './dxf.ts';
export { readDxf } from './dxf-reading.ts';
export { headerBytes, isTrustworthy, type PictureHeader, readPictureHeader } from './picture-header.ts';
export { EmptyFileError, type FilePiece } from './placement.ts';
export { type CardPage, writeScaleCard } from './scale-card-pdf.ts';
export { pathData, writeSvg } from './svg.ts';
export { cssPxMm, readSvg } from './svg-reading.ts';
export { type TiffPage, tiffPages } from './tiff-pages.ts';
