import { expect, test } from '@jest/globals';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import { proveSites } from './proveSites.ts';
import { SiteProver } from './siteProver.ts';

const link = (name: string): string => pageOf(`<link rel=stylesheet href=${name}>`, '<p>a');
const before = siteOf({ 'a.html': pageOf('<style>p{top:0}</style>', '<p>a'), 'b.html': pageOf('<style>p{top:1px}</style>', '<p>a'), 'c.html': pageOf('', '<p>a') }); // prettier-ignore
const after = (a: string, b: string) => siteOf({ 'a.html': link('a.css'), 'b.html': link('b.css'), 'c.html': pageOf('', '<p>a'), 'a.css': a, 'b.css': '@import "x.css";', 'x.css': b }); // prettier-ignore

test('a second proof of the same beginning says what a first one would, page by page', () => {
  const prover = new SiteProver(before);
  for (const [a, b] of [
    ['p{top:0}', 'p{top:1px}'],
    ['p{top:0}', 'p{top:1px}'],
    ['p{top:9px}', 'p{top:1px}'],
    ['p{top:0}', 'p{top:9px}'],
    ['p{top:9px}', 'p{top:9px}'],
    ['p{top:0}', 'p{top:1px}'],
  ] as const) {
    const now = after(a, b);
    const proof = prover.prove(now);
    expect(proof).toEqual(proveSites(before, now));
    expect(proof.pages.map((page) => page.verdict)).toEqual([a === 'p{top:0}' ? 'same' : 'differs', b === 'p{top:1px}' ? 'same' : 'differs', 'same']); // prettier-ignore
  }
});

test('pages that nothing new can reach are not read again', () => {
  const prover = new SiteProver(before);
  const read: string[] = [];
  const { session } = prover;
  const open = session.open.bind(session);
  session.open = (site, file, scripting) => {
    if (site !== before) read.push(file.path);
    return open(site, file, scripting);
  };
  prover.prove(after('p{top:0}', 'p{top:1px}'));
  expect(read).toEqual(['a.html', 'b.html']);
  prover.prove(after('p{top:0}', 'p{top:1px}'));
  expect(read).toEqual(['a.html', 'b.html']);
  prover.prove(after('p{top:0;}', 'p{top:1px}'));
  expect(read).toEqual(['a.html', 'b.html', 'a.html']);
  prover.prove(after('p{top:0;}', 'p{top:1px;}'));
  expect(read).toEqual(['a.html', 'b.html', 'a.html', 'b.html']);
});

test.each([
  ['an escape in an import', '<link rel=stylesheet href=main.css>', '@import "s\\69te.css";'],
  ['an escape of the address', '<link rel=stylesheet href=s%69te.css>', ''],
  ['a reference in the markup', '<link rel=stylesheet href="s&#105;te.css">', ''],
  ['a line end, which browsers take out of addresses', '<link rel=stylesheet href="si\nte.css">', ''],
  ['a tab in an import of a block', '<style>@import url("si\tte.css");</style>', ''],
])('a page that reaches a changed sheet only by %s is read', (_shows, head, main) => {
  const state = (rule: string) => siteOf({ 'a.html': pageOf(head, '<p>a'), 'main.css': main, 'site.css': rule });
  expect(proveSites(state('p{top:0}'), state('p{top:1px}')).pages[0]).toMatchObject({ path: 'a.html', verdict: 'differs' }); // prettier-ignore
});
