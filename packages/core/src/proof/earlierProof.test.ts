import { expect, test } from '@jest/globals';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import { proveSites } from './proveSites.ts';

test('with an earlier proof only pages that something new can reach are looked at, and the answer is the same', () => {
  const link = (name: string): string => pageOf(`<link rel=stylesheet href=${name}>`, '<p>a');
  const before = siteOf({ 'a.html': pageOf('<style>p{top:0}</style>', '<p>a'), 'b.html': pageOf('<style>p{top:1px}</style>', '<p>a'), 'c.html': pageOf('', '<p>a') }); // prettier-ignore
  const after = (a: string, b: string) => siteOf({ 'a.html': link('a.css'), 'b.html': link('b.css'), 'c.html': pageOf('', '<p>a'), 'a.css': a, 'b.css': '@import "x.css";', 'x.css': b }); // prettier-ignore
  const first = after('p{top:0}', 'p{top:1px}');
  const earlier = { after: first, proof: proveSites(before, first) };
  const marked = { ...earlier, proof: { ...earlier.proof, pages: earlier.proof.pages.map((page) => ({ ...page, notes: ['taken over'] })) } }; // prettier-ignore
  for (const [a, b] of [
    ['p{top:0}', 'p{top:1px}'],
    ['p{top:9px}', 'p{top:1px}'],
    ['p{top:0}', 'p{top:9px}'],
  ] as const) {
    const now = after(a, b);
    expect(proveSites(before, now, { earlier })).toEqual(proveSites(before, now));
    const over = proveSites(before, now, { earlier: marked }).pages.filter((page) => page.notes[0] === 'taken over');
    expect(over.map((page) => page.path)).toEqual(
      ['a.html', 'b.html', 'c.html'].filter((path) => (a === 'p{top:0}' || path !== 'a.html') && (b === 'p{top:1px}' || path !== 'b.html')), // prettier-ignore
    );
  }
});
