// A program of ours as one file, for tests: from source each test file would read and translate some hundred modules first.
import { build } from 'esbuild';
import path from 'node:path';

/**
 * @param {string} entry from the project's folder
 * @param {string} outfile
 * @returns {Promise<string>} its whole path
 */
export async function bundle(entry, outfile) {
  await build({
    entryPoints: [entry],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    sourcemap: 'inline',
    conditions: ['@syndeton/source'],
    logLevel: 'warning',
    plugins: [{ name: 'ours-alone', setup: ({ onResolve }) => onResolve({ filter: /^[^./]/ }, leaveOthers) }],
  });
  return path.resolve(outfile);
}

/** @param {{ path: string; kind: string }} found */
function leaveOthers({ path: name, kind }) {
  return kind === 'entry-point' || name.startsWith('@syndeton/') ? undefined : { path: name, external: true };
}
