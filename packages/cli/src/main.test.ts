import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { GatherReport, Proof, Report, WholeSurvey, type GatherReportReply } from '@syndeton/contract';
import { main } from './main.ts';

let folder = '';
beforeEach(() => {
  folder = fs.mkdtempSync(path.join(os.tmpdir(), 'syndeton-cli-'));
});
afterEach(() => fs.rmSync(folder, { recursive: true, force: true }));

const at = (...parts: string[]): string => path.join(folder, ...parts);

function write(files: Readonly<Record<string, string>>): string {
  for (const [name, content] of Object.entries(files)) {
    fs.mkdirSync(path.dirname(at('in', name)), { recursive: true });
    fs.writeFileSync(at('in', name), content);
  }
  return at('in');
}

async function run(...args: string[]): Promise<{ code: number; out: string; err: string }> {
  let out = '';
  let err = '';
  const code = await main(
    args,
    (text) => (out += `${text}\n`),
    (text) => (err += `${text}\n`),
  );
  return { code, out, err };
}

const page = (style: string): string => `<!DOCTYPE html><title>t</title>${style}<h1>h</h1><p>p</p>`;

function expectSchema(schema: object, text: string): void {
  const ajv = new Ajv2020({ strict: false });
  ajv.validate(schema, JSON.parse(text));
  expect(ajv.errors).toBeNull();
}

test('survey: a table, and JSON as the contract says', async () => {
  const site = write({ 'a.html': page('<style>p{color:red}</style>'), 'x/b.html': page('') });
  const { code, out } = await run('survey', site);
  expect(code).toBe(0);
  expect(out).toContain('2 pages, 0 sheets, 0 other files.');
  expectSchema(WholeSurvey, (await run('survey', site, '--json')).out);
});

test('gather: the whole resulting site, the report, the proof; 0 when the same', async () => {
  const site = write({
    'a.html': page('<style>p{color:red}</style>'),
    'x/b.html': page('<style>p{color:red}</style>'),
    'x.bin': 'x',
  });
  const { code, out } = await run('gather', site, '--out', at('out'), '--json');
  expect(code).toBe(0);
  expectSchema(GatherReport, out);
  const report = JSON.parse(out) as GatherReportReply;
  expect([report.totals.blocksBefore, report.totals.blocksAfter, report.sheets.map((s) => s.path)]).toEqual([
    2,
    0,
    ['css/site.css'],
  ]);
  expect(fs.readFileSync(at('out', 'css', 'site.css'), 'utf8')).toBe('p{color:red}\n');
  expect(fs.readFileSync(at('out', 'x.bin'), 'utf8')).toBe('x');
  expect((await run('proof', site, at('out'))).code).toBe(0);
});

test('gather --allow-differences writes what differs and exits 1', async () => {
  const site = write({ 'a.html': page('<style>p{color:red}</style>'), 'b.html': page('<style>p{color:blue}</style>') });
  const { code, out } = await run('gather', site, '--out', at('out'), '--allow-differences');
  expect(code).toBe(1);
  expect(out).toMatch(/a\.html: differs/);
  expect(fs.existsSync(at('out', 'a.html'))).toBe(true);
});

test('proof: 1 and the reason when something differs', async () => {
  const site = write({ 'a.html': page('<style>p{color:red}</style>') });
  fs.mkdirSync(at('after'));
  fs.writeFileSync(at('after', 'a.html'), page('<style>p{color:blue}</style>'));
  const { code, out } = await run('proof', site, at('after'));
  expect(code).toBe(1);
  expect(out).toContain('color: red → blue');
  expectSchema(Proof, (await run('proof', site, at('after'), '--json')).out);
});

test.each([
  ['no such folder', (): string[] => ['survey', at('none')], /There is no folder/],
  ['a file for a folder', (): string[] => ['survey', fileURLToPath(import.meta.url)], /is a file/],
  [
    'a target that holds something',
    (): string[] => ['gather', write({ 'a.html': '<p>' }), '--out', at('in')],
    /is not empty/,
  ],
  [
    'an unsafe sheet name',
    (): string[] => [
      'gather',
      write({ 'a.html': page('<style>p{top:0}</style>') }),
      '--out',
      at('out'),
      '--sheet',
      'a b.css',
    ],
    /holds a space/,
  ],
  ['no target', (): string[] => ['gather', at('in')], /--out/],
  ['an unknown command', (): string[] => ['paint'], /unknown command/],
])('2 and a clear word for %s', async (_shows, args, message) => {
  const { code, err } = await run(...args());
  expect(code).toBe(2);
  expect(err).toMatch(message);
  expect(fs.existsSync(at('out'))).toBe(false);
});

test('gather: style attributes become classes; --keep attributes leaves them; anything else is bad input', async () => {
  const site = write({ 'a.html': page('<p style="top:0">x</p><p style="TOP: 0px">y</p>') });
  const { code, out } = await run('gather', site, '--out', at('out'), '--json');
  expect(code).toBe(0);
  const report = JSON.parse(out) as GatherReportReply;
  expect(report.totals).toMatchObject({ attributesBefore: 2, attributesAfter: 0 });
  expect(report.sheets.map((sheet) => [sheet.path, sheet.rules])).toEqual([['css/site.css', 1]]);
  expect(fs.readFileSync(at('out', 'a.html'), 'utf8')).toContain(
    '<p class="text-top-0">x</p><p class="text-top-0">y</p>',
  );
  const kept = await run('gather', site, '--out', at('kept'), '--json', '--keep', 'attributes');
  expect((JSON.parse(kept.out) as GatherReportReply).totals).toMatchObject({ attributesAfter: 2 });
  expect(await run('gather', site, '--out', at('bad'), '--keep', 'blocks')).toMatchObject({
    code: 2,
    err: expect.stringContaining('attributes is allowed'),
  });
});

test('gather --plan writes the plan it made, and follows it the next time', async () => {
  const site = write({ 'a.html': page('<style>p{color:red}</style>'), 'b.html': page('<style>p{color:red}</style>') });
  const plan = at('plan.json');
  expect((await run('gather', site, '--out', at('out'), '--plan', plan)).code).toBe(0);
  const operations = JSON.parse(fs.readFileSync(plan, 'utf8')) as { sheet: string }[];
  expect(operations.map(({ sheet }) => sheet)).toEqual(['css/site.css']);
  fs.writeFileSync(plan, JSON.stringify([{ ...operations[0], sheet: 'look.css' }]));
  const { code, out } = await run('gather', site, '--out', at('again'), '--plan', plan, '--json');
  expect(code).toBe(0);
  expectSchema(GatherReport, out);
  expect((JSON.parse(out) as GatherReportReply).sheets).toMatchObject([
    { path: 'look.css', rules: 1, pages: ['a.html', 'b.html'] },
  ]);
});

test('gather: what stays is said by page, line and code', async () => {
  const site = write({
    'a.html': page('<style>p{color:red}</style>'),
    'b.html': page('<style>p{color:red} #only{top:0}</style><style type="text/less">p{}</style>'),
  });
  const { out } = await run('gather', site, '--out', at('out'), '--json', '--single-page', 'stay', '--folder', 'look');
  const report = JSON.parse(out) as GatherReportReply;
  expect(report.sheets.map((sheet) => sheet.path)).toEqual(['look/site.css']);
  expect(report.pages.map(({ path, stayed }) => [path, stayed.map(({ kind, code }) => `${kind} ${code}`)])).toEqual([
    ['a.html', []],
    ['b.html', ['block single-page', 'block not-css']],
  ]);
});

test.each([
  ['a number of sheets', ['--max-sheets', 'few'], /whole number from 1/],
  ['what becomes of single pages', ['--single-page', 'gone'], /shared, own and stay are allowed/],
])('gather refuses %s it does not know', async (_shows, flags, message) => {
  const site = write({ 'a.html': page('') });
  const { code, err } = await run('gather', site, '--out', at('out'), ...flags);
  expect([code, err]).toEqual([2, expect.stringMatching(message)]);
});

test.each([
  ['no JSON', '{', /is not JSON/],
  ['no operation', '[{"kind":"paint"}]', /is not a list of operations/],
  ['a step that does not fit', '[{"kind":"gather-rules","sheet":"x.css"}]', /None of the chosen pages/],
])('gather --plan with %s is bad input and writes nothing', async (_shows, text, message) => {
  const site = write({ 'a.html': page('') });
  fs.writeFileSync(at('plan.json'), text);
  const { code, err } = await run('gather', site, '--out', at('out'), '--plan', at('plan.json'));
  expect([code, err]).toEqual([2, expect.stringMatching(message)]);
  expect(fs.existsSync(at('out'))).toBe(false);
});

test('a link to a file is read as the file, one to a folder is written again', async () => {
  const dir = write({ 'a.html': page('<style>p{color:red}</style>'), 'pages/b.html': page('') });
  fs.symlinkSync('a.html', at('in', 'home.html'));
  fs.symlinkSync('pages', at('in', 'old'));
  const { code } = await run('gather', dir, '--out', at('out'));
  expect(code).toBe(0);
  expect(fs.readFileSync(at('out', 'home.html'), 'utf8')).toBe(fs.readFileSync(at('out', 'a.html'), 'utf8'));
  expect(fs.readlinkSync(at('out', 'old'))).toBe('pages');
});

test('what cannot be told is an answer of its own: 3, with the line and what settles it', async () => {
  const script = '<script>document.querySelector("p").className = "on"</script>';
  const dir = write({ 'a.html': `${page('')}<p style="color:red">x</p>${script}` });
  fs.mkdirSync(at('out'));
  fs.writeFileSync(at('out', 'a.html'), `${page('<style>.r{color:red}</style>')}<p class="r">x</p>${script}`);
  const { code, out } = await run('proof', dir, at('out'));
  expect(code).toBe(3);
  expect(out).toContain('a.html: cannot be told');
  expect(out).toMatch(/a\.html, line 1: .*class of elements/);
  const json = await run('proof', dir, at('out'), '--json');
  expectSchema(Proof, json.out);
  expect(JSON.parse(json.out)).toMatchObject({ verdict: 'unsure' });
});

test('sheets that are not here: a proof takes them as missing on the server too where that is said, and says so', async () => {
  const before = at('missing-before');
  const after = at('missing-after');
  for (const folder of [before, after]) fs.mkdirSync(folder, { recursive: true });
  const page = (body: string, link = ''): string =>
    `<!DOCTYPE html><title>t</title><link rel="stylesheet" href="no.css">${link}${body}`;
  fs.writeFileSync(path.join(before, 'a.html'), page('<p style="top:0">x</p>'));
  const gathered = await run('gather', before, '--out', at('missing-out'), '--missing', 'nothing');
  expect([
    gathered.code,
    gathered.out.includes('Of sheets that are not here: no.css missing on the server too.'),
  ]).toEqual([0, true]);
  expect(fs.readFileSync(at('missing-out', 'a.html'), 'utf8')).not.toContain('style=');
  expect((await run('proof', before, at('missing-out'))).code).not.toBe(0);
  expect((await run('proof', before, at('missing-out'), '--missing', 'nothing')).code).toBe(0);
  const refused = await run('proof', before, after, '--missing', 'all');
  expect([refused.code, refused.err]).toEqual([2, expect.stringContaining('unknown and nothing are allowed')]);
});

test('sheets of other servers are asked about apart', async () => {
  const link = '<link rel=stylesheet href="https://fonts.example/f.css">';
  const site = write({ 'a.html': page(`${link}<p style="top:0">x</p>`) });
  const kept = await run('gather', site, '--out', at('kept'), '--missing', 'nothing');
  expect(kept.out).toContain('Nothing was gathered.');
  const gathered = await run('gather', site, '--out', at('out'), '--remote', 'nothing');
  expect(gathered.out).toContain("https://fonts.example/f.css saying nothing about these pages' elements");
  expect([gathered.code, fs.readFileSync(at('out', 'a.html'), 'utf8').includes('style=')]).toEqual([0, false]);
});

test('trades: listed with numbers; what is taken is chosen, and nothing else may change', async () => {
  const pages = ['a', 'b', 'c', 'd'].map(
    (name) =>
      [`${name}.html`, page(`<style>h1{top:0} p{color:${name === 'd' ? 'teal' : 'red'}}</style><body>`)] as const,
  );
  const site = write(Object.fromEntries(pages));
  const plain = await run('gather', site, '--out', at('plain'), '--sheet', 'all.css');
  expect(plain.out).toContain('  1. d.html: p as 3 other pages say it; 1 class and 1 rule fewer, changes color');
  expect(fs.readFileSync(at('plain', 'd.html'), 'utf8')).toContain('class=');
  const traded = await run('gather', site, '--out', at('traded'), '--sheet', 'all.css', '--trade', '1');
  expect([traded.code, traded.out.includes('d.html: intended')]).toEqual([0, true]);
  expect(fs.readFileSync(at('traded', 'd.html'), 'utf8')).not.toContain('class=');
  expect(fs.readFileSync(at('traded', 'all.css'), 'utf8')).not.toContain('teal');
  for (const [flags, sentence] of [
    [['--trade', '2'], 'There is no trade 2. 1 to 1 are there.'],
    [['--trade', 'x'], '--trade x is no number of a trade'],
    [['--trade', '1', '--allow-differences'], 'It goes with neither --plan nor --allow-differences.'],
  ] as const)
    expect(await run('gather', site, '--out', at('no'), ...flags)).toMatchObject({
      code: 2,
      err: expect.stringContaining(sentence),
    });
});

test('patch: what gathering changed, as git apply takes it', async () => {
  const site = write({ 'a.html': page('<style>p{color:red}</style>'), 'b.html': page('<style>p{color:red}</style>') });
  await run('gather', site, '--out', at('after'), '--sheet', 'css/all.css');
  const { code, out } = await run('patch', site, at('after'), '--out', at('site.patch'));
  expect([code, out]).toEqual([0, expect.stringMatching(/site\.patch: \d+ bytes\./)]);
  spawnSync('git', ['apply', '--whitespace=nowarn', at('site.patch')], {
    cwd: site,
    env: { ...process.env, GIT_CEILING_DIRECTORIES: folder },
  });
  for (const name of ['a.html', 'b.html', 'css/all.css'])
    expect(fs.readFileSync(path.join(site, name))).toEqual(fs.readFileSync(at('after', name)));
  expect((await run('patch', site, at('after'))).code).toBe(2);
});

test('pages that a server runs are pages when asked, parts of pages are not; code above the doctype makes no quirks', async () => {
  const php = (name: string): string =>
    `<?php if ($a->b > 1) { session_start(); } ?><!DOCTYPE html><html><head><title><?= $t ?></title><style>p{color:red}</style></head><body><p>${name}</p></body></html>`;
  const site = write({ 'a.php': php('a'), 'b.PHP': php('b'), 'part.php': '<?php function f() {} ?><p>x</p>' });
  expect(await run('survey', site)).toMatchObject({ code: 0, out: expect.stringContaining('0 pages') });
  const { code, out } = await run('gather', site, '--run-pages', 'php', '--out', at('out'));
  expect(out).toContain('2 of 2 pages look the same');
  expect(code).toBe(0);
  expect(fs.readFileSync(at('out', 'a.php'), 'utf8')).toBe(php('a').replace('<style>p{color:red}</style>', '<link rel="stylesheet" href="css/site.css">'));
  expect(fs.readFileSync(at('out', 'part.php'))).toEqual(fs.readFileSync(at('in', 'part.php')));
  expect(await run('--run-pages', 'php', 'proof', site, at('out'))).toMatchObject({ code: 0 });
  expect(await run('gather', site, '--run-pages', 'p/p', '--out', at('no'))).toMatchObject({ code: 2, err: expect.stringContaining('php,asp,jsp') });
  expect(await run('survey', site, '--run-pages', 'css')).toMatchObject({ code: 2 });
}); // oxfmt-ignore

test('report: a page to print, rows, or data; the exit code is the proof\'s', async () => {
  const before = write({ 'a.html': page('<style>p{color:red}</style>') });
  fs.mkdirSync(at('new'));
  fs.writeFileSync(at('new', 'a.html'), page('<link rel=stylesheet href=s.css>'));
  fs.writeFileSync(at('new', 's.css'), 'p{color:red}');
  const asked = (...more: string[]) => run('report', before, at('new'), ...more);
  expect(await asked('--out', at('r.html'), '--title', 'Ferry')).toMatchObject({ code: 0, out: expect.stringContaining('1 of 1 pages the same') });
  expect(fs.readFileSync(at('r.html'), 'utf8')).toContain('<h1>Ferry</h1>');
  expect(await asked('--out', at('r.csv'))).toMatchObject({ code: 0 });
  expect(fs.readFileSync(at('r.csv'), 'utf8')).toContain('file,s.css,,created,0,12');
  expect(await asked('--out', at('r.txt'), '--format', 'json')).toMatchObject({ code: 0 });
  expectSchema(Report, fs.readFileSync(at('r.txt'), 'utf8'));
  expect(await asked('--out', at('r.doc'))).toMatchObject({ code: 2, err: expect.stringContaining('html, csv and json') });
  fs.writeFileSync(at('new', 's.css'), 'p{color:blue}');
  expect(await asked('--out', at('r.html'))).toMatchObject({ code: 1 });
}); // oxfmt-ignore

test('links: the grid, as data, mended and linked', async () => {
  const site = write({
    'a.html': page('<link rel=stylesheet href=s.css><style>b{top:0}</style>'),
    'b.html': page('<link rel=stylesheet href=S.css>'),
    's.css': 'p{color:red}',
    't.css': '.none{top:0}',
  });
  const { code, out } = await run('links', site);
  expect(code).toBe(0);
  expect(out).toContain('page     A   B  ◆\na.html   1   ·  2\nb.html   ·   ·\n');
  expect(out).toContain('b links S.css; the file is s.css');
  const { out: json } = await run('links', site, '--json');
  expect(JSON.parse(json)).toMatchObject({ sheets: [{ path: 's.css', pages: 1 }, { path: 't.css', pages: 0 }], pages: [{ sources: [{ kind: 'linked', target: 's.css' }, { kind: 'embedded' }] }, {}], findings: [{ kind: 'link-wrong-case' }] });
  expect(await run('links', site, '--mend', '--out', at('m'))).toMatchObject({ code: 1, out: expect.stringContaining('Nothing was written') });
  expect(await run('links', site, '--mend', '--allow-differences', '--out', at('m'))).toMatchObject({ code: 1 });
  expect(fs.readFileSync(at('m', 'b.html'), 'utf8')).toContain('href=s.css');
  expect(await run('links', at('m'), '--link', 't.css', '--out', at('l'))).toMatchObject({ code: 0 });
  expect(fs.readFileSync(at('l', 'a.html'), 'utf8')).toContain('href="t.css"');
  expect(await run('links', site, '--mend')).toMatchObject({ code: 2, err: expect.stringContaining('--out') });
  expect(await run('links', at('m'), '--link', 'no.css', '--out', at('n'))).toMatchObject({ code: 2 });
}); // oxfmt-ignore

test('rename: sheets and pages at once, written when nothing looks different', async () => {
  const site = write({ 'a.html': '<!DOCTYPE html><title>t</title><link rel=stylesheet href=s.css><p class=note id=top>x<a href="#top">y</a>', 's.css': '.note{color:red}' });
  expect(await run('rename', site, '--class', 'note=tip', '--id', 'top=start', '--out', at('r'))).toMatchObject({ code: 0 });
  expect(fs.readFileSync(at('r', 'a.html'), 'utf8')).toContain('class=tip id=start>x<a href="#start"');
  expect(fs.readFileSync(at('r', 's.css'), 'utf8')).toBe('.tip{color:red}');
  expect(await run('rename', site, '--class', 'note', '--out', at('x'))).toMatchObject({ code: 2, err: expect.stringContaining('old=new') });
  expect(await run('rename', site, '--class', 'note=1x', '--out', at('x'))).toMatchObject({ code: 2 });
  expect(await run('rename', site, '--out', at('x'))).toMatchObject({ code: 2, err: expect.stringContaining('--class') });
}); // oxfmt-ignore

test('recipe: made of a plan, applied to another site; what does not fit is said', async () => {
  const site = write({ 'a.html': page('<style>p{color:red}</style>'), 'b.html': page('<style>p{color:red}</style>') });
  await run('gather', site, '--plan', at('plan.json'), '--out', at('g'));
  expect(await run('recipe', '--make', at('plan.json'), '--out', at('r.json'))).toMatchObject({ code: 0, out: expect.stringContaining('1 step') });
  const recipe = JSON.parse(fs.readFileSync(at('r.json'), 'utf8')) as { steps: object[] };
  recipe.steps.push({ does: 'operation', operation: { kind: 'delete-sheet', sheet: 'no.css' } });
  fs.writeFileSync(at('r.json'), JSON.stringify(recipe));
  fs.mkdirSync(at('other'));
  fs.writeFileSync(at('other', 'x.html'), page('<style>h1{top:0}</style>'));
  const done = await run('recipe', at('other'), '--apply', at('r.json'), '--out', at('o'));
  expect(done).toMatchObject({ code: 0, out: expect.stringContaining('Step 2 does not fit') });
  expect(fs.readFileSync(at('o', 'css', 'site.css'), 'utf8')).toContain('h1{top:0}');
  expect(await run('recipe', '--out', at('y'))).toMatchObject({ code: 2 });
  expect(await run('recipe', '--make', at('none.json'), '--out', at('y'))).toMatchObject({ code: 2 });
  fs.writeFileSync(at('bad.json'), '{"recipe": 2}');
  expect(await run('recipe', at('other'), '--apply', at('bad.json'), '--out', at('y'))).toMatchObject({ code: 2, err: expect.stringContaining('no recipe') });
}); // oxfmt-ignore
