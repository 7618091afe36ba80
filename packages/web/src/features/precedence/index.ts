export { PrecedenceStation } from './PrecedenceStationLazy.tsx';
export { useOverridesCount } from './useOverridesCount.ts';
