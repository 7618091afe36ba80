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
