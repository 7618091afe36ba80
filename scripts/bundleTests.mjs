// All tests of a package with what they stand on, bundled at once and in shared parts: file by file Jest would read, translate and link
// some hundred modules for each of them, which took longer than many a test.
import { build } from 'esbuild';
import fs from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';

const root = path.resolve(import.meta.dirname, '..');
const packages = path.join(root, 'packages');
const readJson = (file) => JSON.parse(fs.readFileSync(path.join(packages, file), 'utf8'));

/** Core's are modules that read no files of their own; of others on Node each stays as it lies in node_modules. */
const bundledToo = new Set(Object.keys(readJson('core/package.json').dependencies));

/** Where a test file's bundle is. @param {string} file */
export function bundledTest(file) {
  return path.join(root, '.cache/tests', path.relative(packages, file).replace(/\.tsx?$/, '.js'));
}

/** Before the tests of a package. @param {string} name its folder in packages/ */
export default async function bundleTests(name) {
  const folder = path.join(packages, name);
  const files = fs.readdirSync(path.join(folder, 'src'), { recursive: true, encoding: 'utf8' });
  const outdir = path.join(root, '.cache/tests', name);
  const inBrowser = name === 'web';
  fs.rmSync(outdir, { recursive: true, force: true });
  await build({
    entryPoints: files.filter((file) => /\.test\.tsx?$/.test(file)).map((file) => path.join(folder, 'src', file)),
    outbase: folder,
    outdir,
    bundle: true,
    splitting: true,
    format: 'esm',
    target: 'es2022',
    jsx: 'automatic',
    platform: inBrowser ? 'browser' : 'node',
    conditions: ['@syndeton/source', 'development'],
    external: ['node:*', '@jest/globals'],
    banner: inBrowser ? {} : { js: requireOf(path.join(folder, 'package.json')) },
    sourcemap: true,
    sourcesContent: false,
    loader: { '.css': 'empty', '.woff2': 'empty' },
    logLevel: 'warning',
    plugins: [keptPlaces, ...(inBrowser ? [] : [leftAlone])],
  });
}

const requireOf = (file) =>
  `import { createRequire as requireFrom } from 'node:module'; const require = requireFrom(${JSON.stringify(file)});`;

/** A module goes on knowing where it lies. @type {import('esbuild').Plugin} */
const keptPlaces = {
  name: 'kept places',
  setup: ({ onLoad }) =>
    onLoad({ filter: /\.(tsx?|m?js)$/ }, ({ path: file }) => {
      const source = fs.readFileSync(file, 'utf8');
      if (!source.includes('import.meta.')) return undefined;
      const contents = source
        .replaceAll('import.meta.url', JSON.stringify(pathToFileURL(file).href))
        .replaceAll('import.meta.dirname', JSON.stringify(path.dirname(file)));
      return { contents, loader: 'default' };
    }),
};

/** @type {import('esbuild').Plugin} */
const leftAlone = {
  name: 'left alone',
  setup: ({ onResolve }) =>
    onResolve({ filter: /^[^./]/ }, ({ path: name, importer }) => {
      const [scope, rest] = name.split('/');
      const package_ = scope?.startsWith('@') ? `${scope}/${rest}` : (scope ?? '');
      const isBundled = scope === '@syndeton' || bundledToo.has(package_) || importer.includes('node_modules');
      return isBundled ? undefined : { path: name, external: true };
    }),
};
