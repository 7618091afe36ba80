export { PrecedenceStation } from './PrecedenceStation.tsx';
export { useOverridesCount } from './useOverridesCount.ts';
