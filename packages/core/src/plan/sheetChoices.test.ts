import { describe, expect, test } from '@jest/globals';
import { pageOf, siteOf, textIn } from '../testing/siteOf.ts';
import type { PlanOptions } from './planOptions.ts';
import { planWhole } from './planWhole.ts';

const page = (style: string): string => pageOf(`<style>${style}</style>`, '<h1>h</h1><p class=n>n</p><p class=i>i</p>');
const all = 'h1 { color: teal }\n.n { top: 0 }\n';
const site = siteOf({
  'index.html': page(all),
  'about.html': page(`${all}.n { left: 1px }`),
  'isles/hesk.html': page(`${all}.i { padding: 1px }`),
  'isles/tarn.html': page(`${all}.i { padding: 1px }\n.n { margin: 2px }`),
  'news/2024/one.html': page(`${all}.i { padding: 3px }`),
  'news/2024/two.html': page(`${all}.i { padding: 3px }`),
});

function plan(options: PlanOptions) {
  const made = planWhole(site, 'css/site.css', options);
  if (!made.ok) throw new Error(made.problem.kind);
  const { value } = made;
  expect(value.proof.verdict).toBe('same');
  return {
    sheets: value.sheets.map(({ path, pages, why }) => [path, pages.length, why]),
    text: (path: string) => textIn(value.site, path),
    marks: value.operations.flatMap((one) => (one.kind === 'gather-sheet' ? (one.marks ?? []) : [])),
  };
}

describe('where rules of some pages go', () => {
  test('into one sheet, with classes of these pages', () => {
    const { sheets, marks } = plan({});
    expect(sheets).toEqual([['css/site.css', 6, undefined]]);
    expect(marks.map(({ name }) => name).sort()).toEqual(['about', 'isles', 'news-2024', 'tarn']);
  });

  test('into a sheet for each folder: only its pages link it, and no class tells folders apart', () => {
    const { sheets, text, marks } = plan({ sheets: 'folders' });
    expect(sheets).toEqual([
      ['css/site.css', 6, undefined],
      ['css/isles.css', 2, 'Only pages in isles/ have these rules.'],
      ['css/news-2024.css', 2, 'Only pages in news/2024/ have these rules.'],
    ]);
    expect(text('css/isles.css')).toContain('.i { padding: 1px }');
    expect(text('css/site.css')).not.toContain('.i');
    expect(text('isles/hesk.html')).toMatch(/css\/site\.css">\s*<link rel="stylesheet" href="\.\.\/css\/isles\.css">/);
    expect(marks.map(({ name }) => name).sort()).toEqual(['about', 'tarn']);
  });

  test('what one page has stands in a sheet beside it', () => {
    const { sheets, text } = plan({ singlePage: 'own' });
    expect(sheets.map(([path]) => path).sort()).toEqual(['about.css', 'css/site.css', 'isles/tarn.css']);
    expect(text('isles/tarn.css')).toBe('.n { margin: 2px }\n');
    expect(text('isles/tarn.html')).toContain('<link rel="stylesheet" href="tarn.css">');
  });

  test('at most so many sheets: what would need more stays in its pages', () => {
    const { sheets, text } = plan({ sheets: 'folders', maxSheets: 2 });
    expect(sheets.map(([path]) => path)).toEqual(['css/site.css', 'css/isles.css']);
    expect(text('news/2024/one.html')).toContain('.i { padding: 3px }');
  });

  test('both', () => {
    const { sheets, marks } = plan({ sheets: 'folders', singlePage: 'own' });
    expect(sheets.map(([path]) => path).sort()).toEqual([
      'about.css',
      'css/isles.css',
      'css/news-2024.css',
      'css/site.css',
      'isles/tarn.css',
    ]);
    expect(marks).toEqual([]);
  });
});
