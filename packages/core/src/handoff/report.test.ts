import { expect, test } from '@jest/globals';
import { checkSite } from '../checks/checkSite.ts';
import { proveSites } from '../proof/proveSites.ts';
import { parsePage } from '../page/parsePage.ts';
import { siteOf } from '../testing/siteOf.ts';
import { averageWeight } from './pageWeight.ts';
import { handoffReport, type HandoffReport } from './report.ts';
import { reportCsv } from './reportCsv.ts';
import { reportHtml } from './reportHtml.ts';

const page = (head: string): string => `<!DOCTYPE html><title>t</title>${head}<p>x`;
const link = '<link rel=stylesheet href=s.css>';
const block = '<style>p{color:red}</style>';

function reported(before: Readonly<Record<string, string>>, after: Readonly<Record<string, string>>, title = 'Ferry'): HandoffReport {
  const [old, now] = [siteOf(before), siteOf(after)];
  const note = 'as agreed, "harbour"';
  const revisions = [{ number: 2, message: '=1+1 <b>', savedAt: '', steps: ['Gather', 'Sort <p>'], note }];
  return handoffReport(old, now, proveSites(old, now), { title, from: 'r1', to: 'r2', revisions, check: checkSite(now), packed: (bytes) => bytes.length / 2 });
} // oxfmt-ignore

test('files with their sizes, sheets first; the proof; what is found in what is handed off', () => {
  const report = reported(
    { 'a.html': page(block), 'b.html': page(block), 'z.png': 'p' },
    { 'a.html': page(link), 'b.html': page(''), 's.css': 'p{color:red}' },
  );
  expect(report.files.map(({ path, change, bytesBefore, packedAfter }) => [path, change, bytesBefore, packedAfter])).toEqual([
    ['s.css', 'created', 0, 6],
    ['a.html', 'edited', page(block).length, page(link).length / 2],
    ['b.html', 'edited', page(block).length, page('').length / 2],
    ['z.png', 'deleted', 1, 0],
  ]); // oxfmt-ignore
  expect([report.proof.verdict, report.proof.same, report.proof.pages.map(({ path }) => path)]).toEqual([
    'differs',
    1,
    ['b.html'],
  ]);
  expect(report.links).toEqual({ links: 1, missing: 0 });
});

test('what a visitor fetches: sheets once, imports too', () => {
  const site = siteOf({
    'a.html': page(link + block),
    'b.html': page(''),
    's.css': '@import "t.css";',
    't.css': 'b{}',
  });
  const { markup, embedded, attributes, sheets } = averageWeight(checkSite(site).survey)!;
  expect(embedded).toBe('p{color:red}'.length / 2);
  expect(attributes).toBe(0);
  expect(sheets).toBe(('@import "t.css";'.length + 'b{}'.length) / 2);
  expect(markup + embedded).toBe((page(link + block).length + page('').length) / 2);
  expect(averageWeight({ pages: [], sheets: [] })).toBeUndefined();
});

test('as a page to print: nothing of a site becomes markup', () => {
  const html = reportHtml(
    reported(
      { 'a<i>.html': page('<style>p{color:red}</style>') },
      { 'a<i>.html': page('<style>p{color:blue}</style>') },
      '<script>x</script> & co',
    ),
  );
  const { elements } = parsePage(html);
  const tags = new Set(elements.map(({ tag }) => tag));
  expect([...tags].filter((tag) => ['script', 'i', 'img', 'link'].includes(tag))).toEqual([]);
  expect(html).toContain('&lt;script&gt;x&lt;/script&gt; &amp; co');
  expect(html).toContain('<b>1 page looks different</b>: <code>a&lt;i&gt;.html</code>');
  expect(html).toContain('<code>red</code> → <code>blue</code>');
  expect(html).toContain('as agreed, &quot;harbour&quot;');
  expect(html).toContain('<li>Sort &lt;p&gt;</li>');
});

test('as rows: quotes doubled, formulas told to be text', () => {
  const csv = reportCsv(reported({ 'a.html': page('') }, { 'a.html': page('<style>p{content:"a,b"}</style>'), '=x.css': 'p{}' }));
  const lines = csv.split('\r\n');
  expect(lines[0]).toBe('what,path,line,is,bytes before,bytes after,compressed before,compressed after,says');
  expect(lines[1]).toMatch(/^file,'=x\.css,,created,0,3,0,1\.5,$/);
  expect(lines.find((line) => line.startsWith('page,'))).toContain('""a,b""');
  expect(csv.endsWith('\r\n')).toBe(true);
}); // oxfmt-ignore
