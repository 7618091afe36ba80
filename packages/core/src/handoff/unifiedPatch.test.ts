import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { planWhole } from '../plan/planWhole.ts';
import { siteOf } from '../testing/siteOf.ts';
import type { Site } from '../source/site.ts';
import { hostileSite } from '../testing/hostileSite.ts';
import { unifiedPatch } from './unifiedPatch.ts';

let folder = '';
beforeEach(() => {
  folder = fs.mkdtempSync(path.join(os.tmpdir(), 'syndeton-patch-'));
});
afterEach(() => fs.rmSync(folder, { recursive: true, force: true }));

const latin = (text: string): Uint8Array => Uint8Array.from(text, (c) => c.charCodeAt(0));

/** The files of `before` after a tool has applied the patch to them. */
function applied(before: Site, after: Site, tool: 'git' | 'patch'): Readonly<Record<string, string>> {
  const root = path.join(folder, tool);
  for (const { path: name, bytes } of before.files.values()) {
    fs.mkdirSync(path.dirname(path.join(root, name)), { recursive: true });
    fs.writeFileSync(path.join(root, name), bytes);
  }
  fs.mkdirSync(root, { recursive: true });
  const file = path.join(folder, `${tool}.patch`);
  fs.writeFileSync(file, unifiedPatch(before, after).bytes);
  const args = tool === 'git' ? ['apply', '--whitespace=nowarn', file] : ['-p1', '--binary', '-s', '-i', file];
  const run = spawnSync(tool, args, {
    cwd: root,
    encoding: 'utf8',
    env: { ...process.env, GIT_CEILING_DIRECTORIES: folder },
  });
  if (run.status !== 0) throw new Error(`${tool}: ${run.stdout}${run.stderr}`);
  return Object.fromEntries(
    fs
      .readdirSync(root, { recursive: true, encoding: 'utf8' })
      .filter((name) => fs.statSync(path.join(root, name)).isFile())
      .map((name) => [name, fs.readFileSync(path.join(root, name)).toString('latin1')]),
  );
}

const bytesOf = (site: Site): Readonly<Record<string, string>> =>
  Object.fromEntries([...site.files.values()].map((file) => [file.path, Buffer.from(file.bytes).toString('latin1')]));

describe.each(['git', 'patch'] as const)('what %s makes of it is the other state, byte for byte', (tool) => {
  test.each<readonly [string, Readonly<Record<string, string | Uint8Array>>, Readonly<Record<string, string | Uint8Array>>]>([
    ['a line changed', { 'a.css': 'a\nb\nc\n' }, { 'a.css': 'a\nB\nc\n' }],
    ['CRLF', { 'a.css': 'a\r\nb\r\n' }, { 'a.css': 'a\r\nB\r\n' }],
    ['line ends changed', { 'a.css': 'a\r\nb\r\n' }, { 'a.css': 'a\nb\n' }],
    ['lone CR', { 'a.css': 'a\rb\rc' }, { 'a.css': 'a\rB\rc' }],
    ['no line end at the end', { 'a.css': 'a\nb' }, { 'a.css': 'a\nb\nc' }],
    ['a line end taken away', { 'a.css': 'a\n' }, { 'a.css': 'a' }],
    ['a new file in a new folder', { 'a.css': 'a\n' }, { 'a.css': 'a\n', 'css/b.css': 'b\n' }],
    ['a file gone', { 'a.css': 'a\n', 'b.css': 'b\nc\n' }, { 'a.css': 'a\n' }],
    ['an empty file filled', { 'a.css': '' }, { 'a.css': 'a\n' }],
    ['a file emptied', { 'a.css': 'a\nb\n' }, { 'a.css': '' }],
    ['a name with a space', { 'my page.html': '<p>a\n' }, { 'my page.html': '<p>b\n' }],
    ['another encoding', { 'a.html': latin('<p>caf\xe9\n<p>x\n') }, { 'a.html': latin('<p>caf\xe9\n<p>\xfc\n') }],
    ['a byte order mark', { 'a.css': '\ufeffa\nb\n' }, { 'a.css': '\ufeffa\nc\n' }],
    ['far apart', { 'a.css': `a\n${'x\n'.repeat(50)}b\n` }, { 'a.css': `A\n${'x\n'.repeat(50)}B\n` }],
    ['lines that look like a patch', { 'a.css': '--- a\n+++ b\n@@ -1 +1 @@\n' }, { 'a.css': '--- b\n+++ b\n@@ -1 +1 @@\n\\ No newline\n' }],
  ])('%s', (_shows, before, after) => {
    expect(applied(siteOf(before), siteOf(after), tool)).toEqual(bytesOf(siteOf(after)));
  }); // oxfmt-ignore

  test.each([11, 12, 13, 14])('a hostile site gathered, %i', (seed) => {
    const before = siteOf(hostileSite(seed));
    const plan = planWhole(before, 'css/all.css');
    if (!plan.ok) return;
    expect(applied(before, plan.value.site, tool)).toEqual(bytesOf(plan.value.site));
  });
});

test('a name beyond ASCII is written as Git writes it', () => {
  const before = siteOf({ 'café.css': 'a\n' });
  const after = siteOf({ 'café.css': 'b\n' });
  expect(applied(before, after, 'git')).toEqual(bytesOf(after));
});

test('what is no text is left out and named; sheets come before pages', () => {
  const before = siteOf({ 'a.html': '<p>a\n', 'x.png': latin('\x89PNG\0a') });
  const { bytes, leftOut } = unifiedPatch(
    before,
    siteOf({ 'a.html': '<p>b\n', 'x.png': latin('\x89PNG\0b'), 'z.css': 'p{}\n' }),
  );
  expect(leftOut).toEqual(['x.png']);
  const text = Buffer.from(bytes).toString();
  expect(text.indexOf('b/z.css')).toBeLessThan(text.indexOf('b/a.html'));
  expect(text).not.toContain('x.png');
});
