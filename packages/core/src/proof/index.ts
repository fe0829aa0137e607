export { type FaultCode, faultCodes } from './checks.ts';
export { type Fault, type FindingKind, type Fix, isBody, type MadeOutlines, type ProofLimits } from './fault.ts';
export { faultsOf, Prover } from './faults.ts';
export { type Finding, findingKinds, findingsOf, findingWords, fixCommand } from './findings.ts';
export { type Narrow, narrowPlaces } from './narrow.ts';
export { fitOnStock, type ProvedSize, placeNear, provedSizes } from './sizes.ts';
