export { type LengthRange, type ParsedLength, parseLength } from './parse.ts';
export { type ParsedPlanScale, parsePlanScale } from './plan-scale.ts';
export { printBoth, printDecimalInches, printInches, printMm, printToType } from './print.ts';
export { millimetresPer, type Unit, units } from './unit.ts';
