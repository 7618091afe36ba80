export { PrecedenceStation } from './lazyStation.ts';
export { useOverridesCount } from './useOverridesCount.ts';
