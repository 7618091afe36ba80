import { describe, expect, test } from '@jest/globals';
import { proveSites } from '../../proof/proveSites.ts';
import { askChromium, type Question } from '../../testing/chromium.ts';
import { pageOf, siteOf, textIn } from '../../testing/siteOf.ts';
import { planWhole } from '../planWhole.ts';
import type { WholePlanOptions } from '../wholePlan.ts';

const body = '<h1 class=top>a</h1><p class=n>b</p><p id=o>c</p><table><tr><td>d</table>';
const page = (style: string, more = body): string => pageOf(`<style>${style}</style>`, more);

function plan(files: Readonly<Record<string, string>>, options: WholePlanOptions = {}) {
  const result = planWhole(siteOf(files), 'css/site.css', options);
  if (!result.ok) throw new Error(result.problem.kind);
  const { site, sheets, stays, operations, proof } = result.value;
  const gathered = operations.find((one) => one.kind === 'gather-sheet');
  return {
    site,
    stays,
    verdict: proof.verdict,
    sheets: sheets.map(({ path }) => path),
    sheet: textIn(site, 'css/site.css') ?? '',
    marks:
      gathered?.kind === 'gather-sheet'
        ? (gathered.marks ?? []).map(({ name, pages }) => `${name}: ${pages.join(' ')}`)
        : [],
  };
}

interface Row {
  readonly shows: string;
  readonly pages: Readonly<Record<string, string>>;
  readonly marks: readonly string[];
  /** The sheet, without blank lines. */
  readonly sheet: readonly string[];
  readonly options?: WholePlanOptions;
}

const rows: readonly Row[] = [
  { shows: 'what all pages say alike: as it is', pages: { 'a.html': page('p{top:0}'), 'b.html': page('p{top:0}') }, marks: [], sheet: ['p{top:0}'] },
  { shows: 'what reaches nothing elsewhere: as it is', pages: { 'a.html': page('p{top:0}'), 'b.html': page('p{top:0} .own{left:0}', `${body}<i class=own>`) }, marks: [], sheet: ['p{top:0}', '/* b.html */', '.own{left:0}'] },
  { shows: 'one page of few: a mark named for it', pages: { 'a.html': page('p{top:0}'), 'b.html': page('p{top:0} h1{left:0}') }, marks: ['b-page: b.html'], sheet: ['p{top:0}', '/* b.html */', '.b-page h1{left:0}'] },
  { shows: 'one page of many lacks it: the exception is marked', pages: { 'a.html': page('p{top:0} h1{left:0}'), 'c.html': page('p{top:0} h1{left:0}'), 'd.html': page('p{top:0} h1{left:0}'), 'plain.html': page('p{top:0}') }, marks: ['plain: plain.html'], sheet: ['p{top:0}', 'body:not(.plain) h1{left:0}'] },
  { shows: 'all pages of a folder: its name', pages: { 'index.html': page('p{top:0}'), 'about.html': page('p{top:0}'), 'x.html': page('p{top:0}'), 'news/a.html': page('p{top:0} h1{left:0}'), 'news/b.html': page('p{top:0} h1{left:0}') }, marks: ['news: news/a.html news/b.html'], sheet: ['p{top:0}', '/* news/ */', '.news h1{left:0}'] },
  { shows: 'a name the body has on just these pages', pages: { 'a.html': page('p{top:0}'), 'b.html': page('p{top:0} h1{left:0}').replace('<body>', '<body class="wide">'), 'c.html': page('p{top:0} h1{left:0}').replace('<body>', '<body class="wide">'), 'e.html': page('p{top:0}'), 'f.html': page('p{top:0}') }, marks: [], sheet: ['p{top:0}', '.wide h1{left:0}'] },
  { shows: 'an ID there would flip what wins: without weight', pages: { 'a.html': page('p{top:0} .n{left:1px}'), 'b.html': page('p{top:0} .n{left:1px} p{left:0}').replace('<body>', '<body id="b">') }, marks: [], sheet: ['p{top:0}', '.n{left:1px}', '/* b.html */', ':where(#b) p{left:0}'] },
  { shows: 'what encloses all that a rule means, on just these pages: no mark', pages: { 'a.html': page('p{top:0}'), 'b.html': page('p{top:0} h1{left:0} .n{top:1px}', `<div id=main class=story>${body}</div>`), 'c.html': page('p{top:0} h1{left:0} .n{top:1px}', `<div class=story>${body}</div>`), 'e.html': page('p{top:0}'), 'f.html': page('p{top:0}') }, marks: [], sheet: ['p{top:0}', '.story h1{left:0}', '.story .n{top:1px}'] },
  { shows: 'what encloses only some of it serves no rule: all ask for the mark', pages: { 'a.html': page('p{top:0}'), 'b.html': page('p{top:0} h1{left:0} .n{top:1px}', `<div class=story>${body}</div><h1>z</h1>`), 'e.html': page('p{top:0}'), 'f.html': page('p{top:0}') }, marks: ['b-page: b.html'], sheet: ['p{top:0}', '/* b.html */', '.b-page h1{left:0}', '.b-page .n{top:1px}'] },
  { shows: 'an ID around them would flip what wins: without weight', pages: { 'a.html': page('p{top:0} .n{left:1px}'), 'b.html': page('p{top:0} .n{left:1px} p{left:0}', `<div id=main>${body}</div>`) }, marks: [], sheet: ['p{top:0}', '.n{left:1px}', '/* b.html */', ':where(#main) p{left:0}'] },
  { shows: 'with old browsers an ID is not asked for where it would need that', options: { oldBrowsers: true }, pages: { 'a.html': page('p{top:0}'), 'b.html': page('p{top:0} h1{left:0}', `<div id=main>${body}</div>`) }, marks: ['b-page: b.html'], sheet: ['p{top:0}', '/* b.html */', '.b-page h1{left:0}'] },
  { shows: 'drift: what versions share is said once, what one lacks never reaches it', pages: { 'a.html': page('p{top:0;left:0;color:red}'), 'b.html': page('p{top:0;left:0;color:red}'), 'c.html': page('p{top:0;left:0;color:blue}') }, marks: ['c-page: c.html'], sheet: ['p{top:0;left:0;color:red}', '/* c.html */', '.c-page p{color:blue}'] },
  { shows: 'orders that contradict each other: the rarer side is told apart', pages: { 'a.html': page('p{top:0} .n{color:red}'), 'b.html': page('.n{color:red} .n{color:blue}'), 'c.html': page('.n{color:blue} .n{color:red}') }, marks: [], sheet: [] },
  { shows: 'the body itself, and what may be it', pages: { 'a.html': page('p{top:0}'), 'b.html': page('p{top:0} body{left:0} *{right:0}') }, marks: ['b-page: b.html'], sheet: ['p{top:0}', '/* b.html */', '.b-page body{left:0}', '*:is(.b-page, .b-page *){right:0}'] },
  { shows: 'comments once; what hid blocks from old programs not at all', pages: { 'a.html': page('/*<![CDATA[*/ /* text */ p{top:0} /*]]>*/'), 'b.html': page('/* text */ p{top:0}') }, marks: [], sheet: ['/* text */', 'p{top:0}'] },
  { shows: 'rules that say nothing go for good', pages: { 'a.html': page('h1{} // old\n h2{top:0}\np{top:0}'), 'b.html': page('p{top:0}') }, marks: [], sheet: ['p{top:0}'] },
]; // oxfmt-ignore

describe.each(rows)('$shows', ({ pages, marks, sheet, options }) => {
  const made = plan(pages, options);

  test('one sheet, nothing left, the look kept', () => {
    expect([made.sheets, made.stays, made.verdict]).toEqual([['css/site.css'], [], 'same']);
    expect(proveSites(siteOf(pages), made.site).verdict).toBe('same');
  });

  test('written so', () => {
    if (sheet.length > 0)
      expect([made.sheet.split('\n').filter((line) => line !== ''), made.marks]).toEqual([sheet, marks]);
  });
});

test('Chromium shows all of them the same', async () => {
  const ask = `[...document.querySelectorAll('*')].filter((e) => !/^(link|style)$/.test(e.localName)).map((e) => ['top', 'left', 'right', 'color'].map((name) => getComputedStyle(e)[name]).join()).join(' ')`;
  const asked: Question[] = rows.flatMap(({ pages, options }) => {
    const { site, sheet } = plan(pages, options);
    return Object.keys(pages).flatMap((path): Question[] => [
      { html: pages[path]!, path, files: {}, ask },
      { html: textIn(site, path)!, path, files: { 'css/site.css': sheet }, ask },
    ]);
  });
  const answers = await askChromium(asked);
  for (let i = 0; i < answers.length; i += 2) expect(answers[i + 1]).toBe(answers[i]);
});

test('for old browsers no :where(): what would need it goes with its block', () => {
  const pages = { 'a.html': page('p{top:0} .n{left:1px}'), 'b.html': page('p{top:0} .n{left:1px} p{left:0}') };
  const made = plan(pages, { oldBrowsers: true });
  expect(made.sheet).not.toContain(':where');
  expect([made.stays, made.verdict]).toEqual([[], 'same']);
  expect(plan(pages).sheet).toContain(':where(.b-page) p{left:0}');
});

test('a page whose body tag is not written gets no class', () => {
  const bare = '<!DOCTYPE html><title>b</title><style>p{top:0} h1{left:0}</style><h1>a</h1><p>b';
  const made = plan({ 'a.html': page('p{top:0}'), 'c.html': page('p{top:0}'), 'bare.html': bare });
  expect(made.verdict).toBe('same');
  expect(textIn(made.site, 'bare.html')).not.toContain('class=');
  expect(made.marks.every((mark) => !mark.includes('bare.html'))).toBe(true);
});

test('a script that sets the class of the body keeps the class away', () => {
  const script = '<script>document.body.className = "js"</script>';
  const made = plan({
    'a.html': page('p{top:0}'),
    'c.html': page('p{top:0}'),
    's.html': page('p{top:0} h1{left:0}', body + script),
  });
  expect([made.stays, made.verdict]).toEqual([[], 'same']);
  expect(textIn(made.site, 's.html')).toContain('<body>');
});

test('pages with style attributes alone link the sheet where its rules do nothing to them, else a second', () => {
  const styled = (more: string): string => pageOf('', `${more}<b style="color:red">x</b>`);
  const apart = plan({ 'a.html': page('p{top:0}'), 'b.html': page('p{top:0}'), 'c.html': styled('<p>a</p>') });
  expect([apart.sheets, apart.verdict]).toEqual([['css/site.css', 'css/attributes.css'], 'same']);
  const together = plan({ 'a.html': page('p{top:0}'), 'b.html': page('p{top:0}'), 'c.html': styled('') });
  expect([together.sheets, together.verdict]).toEqual([['css/site.css'], 'same']);
});
