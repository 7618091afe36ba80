export { ProofStation } from './lazyStation.ts';
export { useComparison } from './useComparison.ts';
export { verdictMark } from './VerdictMark.tsx';
