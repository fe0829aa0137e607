export { type Finding, findingsOf } from './findings.ts';
