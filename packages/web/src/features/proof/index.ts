export { ProofStation } from './ProofStation.tsx';
export { verdictMark } from './VerdictMark.tsx';
