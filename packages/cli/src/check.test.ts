import { afterEach, beforeEach, expect, test } from '@jest/globals';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { JSDOM } from 'jsdom';
import type { Log } from 'sarif';
import { CheckReport, type CheckReportReply } from '@syndeton/contract';
import { main } from './main.ts';

let folder = '';
beforeEach(() => {
  folder = fs.mkdtempSync(path.join(os.tmpdir(), 'syndeton-check-'));
});
afterEach(() => fs.rmSync(folder, { recursive: true, force: true }));

const demo = fileURLToPath(new URL('../../../demo', import.meta.url));
const link = '<link rel="stylesheet" href="s.css">';
const page = (head: string, body = '<p>x</p>'): string => `<!DOCTYPE html><title>t</title>${head}${body}`;

async function check(
  files: Readonly<Record<string, string>> | string,
  ...args: string[]
): Promise<{ code: number; out: string }> {
  let dir = files;
  if (typeof dir !== 'string') {
    for (const [name, content] of Object.entries(dir)) fs.writeFileSync(path.join(folder, name), content);
    dir = folder;
  }
  let out = '';
  const add = (text: string): void => void (out += `${text}\n`);
  return { code: await main(['check', dir, ...args], add, add), out };
}

const right = { 'a.html': page(link), 'b.html': page(link), 'c.html': page(link), 's.css': 'p{color:red}\n' };

test.each([
  ['nothing to object', right, [], 0, /^3 pages, nothing to object\.\n$/],
  [
    'a page lacks the link',
    { ...right, 'd.html': page('') },
    [],
    1,
    /^d\.html:1: page-without-link: d does not link s\.css; the other 3 pages do/m,
  ],
  [
    'a block came back',
    { ...right, 'a.html': page(`${link}<style>p{color:red}</style>`) },
    [],
    1,
    /holds-styling: a\.html holds 1 embedded block; in a sheet as well: p/,
  ],
  [
    'a style attribute on a gathered site',
    { ...right, 'a.html': page(link, '<p style="top:0">x</p>') },
    [],
    1,
    /a\.html holds 1 style attribute/,
  ],
  [
    'where most pages hold their own, that is how the site is made',
    { 'a.html': page('<style>b{top:0}</style>'), 'b.html': page('') },
    [],
    0,
    /nothing to object/,
  ],
  [
    'less weight does not fail',
    { ...right, 's.css': 'p{color:red;colr:red}' },
    [],
    0,
    /nothing to object\. 1 other finding of less weight/,
  ],
  [
    'unless asked',
    { ...right, 's.css': 'p{color:red;colr:red}' },
    ['--fail-on', 'any'],
    1,
    /s\.css:1: unknown-property: s\.css says colr/,
  ],
  ['bad input', right, ['--fail-on', 'all'], 2, /--fail-on all is not known\. breaks, wrong and any are allowed\./],
  ['a bad format', right, ['--format', 'tap'], 2, /text, json, junit and sarif are allowed/],
])('%s', async (_shows, files, args, code, text) => {
  const done = await check(files, ...args);
  expect(done.out).toMatch(text);
  expect(done.code).toBe(code);
});

test('the demo as JSON', async () => {
  const { code, out } = await check(demo, '--json', '--fail-on', 'wrong');
  expect(code).toBe(1);
  const report = JSON.parse(out) as CheckReportReply;
  const ajv = new Ajv2020({ strict: false });
  ajv.validate(CheckReport, report);
  expect(ajv.errors).toBeNull();
  expect(report.findings.length).toBeGreaterThan(25);
});

test('JUnit XML that an XML parser takes, with the counts it says', async () => {
  const { out } = await check(demo, '--format', 'junit');
  // XML errors throw
  const { document } = new JSDOM(out, { contentType: 'text/xml' }).window;
  const suite = document.querySelector('testsuite')!;
  expect(suite.getAttribute('failures')).toBe(String(document.querySelectorAll('failure').length));
  expect(suite.getAttribute('skipped')).toBe(String(document.querySelectorAll('skipped').length));
  expect(suite.getAttribute('tests')).toBe(String(document.querySelectorAll('testcase').length));
  expect(
    [...document.querySelectorAll('failure')].some((f) =>
      f.getAttribute('message')?.includes('<style type="text/css">'),
    ),
  ).toBe(true);
});

test('SARIF: every result names a rule of the run and a place, its path escaped', async () => {
  const { out } = await check(demo, '--format', 'sarif');
  const [run] = (JSON.parse(out) as Log).runs;
  const rules = new Set(run!.tool.driver.rules!.map((r) => r.id));
  for (const result of run!.results!) {
    expect(rules.has(result.ruleId!)).toBe(true);
    expect(result.locations![0]!.physicalLocation!.region!.startLine).toBeGreaterThan(0);
  }
  const spaced = await check({ ...right, 'Harbour Map.png': '' }, '--format', 'sarif');
  expect(spaced.out).toContain('"uri": "Harbour%20Map.png"');
});
