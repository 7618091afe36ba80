// The program of the analysis threads as one file: from source each would read and translate some hundred modules first.
import { build } from 'esbuild';

/** @returns {Promise<string>} its path */
export async function bundleThread() {
  const outfile = `.cache/thread-${process.pid}.mjs`;
  await build({
    entryPoints: ['packages/server/src/analysis/worker.ts'],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    conditions: ['@syndeton/source'],
    logLevel: 'warning',
    plugins: [{ name: 'ours-alone', setup: ({ onResolve }) => onResolve({ filter: /^[^./]/ }, leaveOthers) }],
  });
  return outfile;
}

/** @param {{ path: string; kind: string }} found */
function leaveOthers({ path, kind }) {
  return kind === 'entry-point' || path.startsWith('@syndeton/') ? undefined : { path, external: true };
}
