export { type CutMeasured, cutMeasured } from './cut-measured.ts';
export { type FileKind, type FileOptions, FileRefused, fileKindNames, fileKinds, type MadeBytes, toolpathsOf } from './file-kinds.ts';
export { type FileFacts, fileName } from './file-name.ts';
export { checked, madeFile, outlinesToWrite } from './made-file.ts';
