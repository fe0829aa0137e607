export { type Column, ColumnError, parsedValue, type Sheet, textOf } from './column.ts';
export { CsvError, type CsvRead, type FaultyLine, readCsv, reasonOf, withFields, writeCsv } from './csv.ts';
export {
  keepOwnCommand,
  machineCommand,
  machineFrom,
  materialCommand,
  materialFrom,
  type Newer,
  newerOnShelf,
  shelfMachineFrom,
  stockFrom,
  takeOverCommand,
} from './job-copies.ts';
export { isAsThick, materialAfter, sheetsOf } from './leftover-stock.ts';
export { type ShelfMachine, shelfMachineSchema } from './machine.ts';
export { type Material, materialSchema } from './material.ts';
export { type ShelfItem, type ShelfKind, type ShelfValue, type ShelfValues, shelfKindNames, shelfKinds } from './shelf-kinds.ts';
export { isMillTool, millToolFrom, type Tool, toolKinds, toolSchema } from './tool.ts';
