import bundleTests from '../../../../scripts/bundleTests.mjs';

export default () => bundleTests('web');
