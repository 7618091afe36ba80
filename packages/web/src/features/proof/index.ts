export { ProofStation } from './ProofStationLazy.tsx';
export { verdictMark } from './VerdictMark.tsx';
