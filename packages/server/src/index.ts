export { createApp, type AppParts } from './app.ts';
export { connect, migrate } from './db/connect.ts';
export { startAnalysis, type Analysis } from './analysis/analysis.ts';
