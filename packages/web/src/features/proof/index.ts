export { ProofStation } from './ProofStationLazy.tsx';
export { useComparison } from './useComparison.ts';
export { verdictMark } from './VerdictMark.tsx';
