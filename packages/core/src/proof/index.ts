export { type Fault, type FaultCode, faultCodes, isBody, type MadeOutlines, type Mend, type ProofLimits } from './fault.ts';
export { faultsOf, Prover } from './faults.ts';
export { type Finding, findingsOf, limitsOf, mendCommand } from './findings.ts';
export { type Narrow, narrowPlaces } from './narrow.ts';
export { fitOnStock, type ProvedSize, placeNear, provedSizes } from './sizes.ts';
