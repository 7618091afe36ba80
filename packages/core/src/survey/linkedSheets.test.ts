import { expect, test } from '@jest/globals';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import { linkedSheets } from './linkedSheets.ts';
import { surveySite } from './surveySite.ts';

const files = {
  'a.html': pageOf('<link rel=stylesheet href=css/s.css><link rel=stylesheet href=none.css>', ''),
  'x/b.html': pageOf('<style>@import "../css/t.css"; p{top:0}</style><link rel=stylesheet href=../css/s.css type=text/less>', ''), // oxfmt-ignore
  'c.html': pageOf('<style type=text/less>@import "css/t.css";</style>', ''),
  'css/s.css': '@import "u.css"; p { top: 0 }',
  'css/t.css': 'p { top: 0 } h1 { top: 0 }',
  'css/u.css': '',
};

test('the same as the whole survey says, also after pages and sheets changed', () => {
  const states = [
    files,
    { ...files, 'c.html': pageOf('<link rel=stylesheet href=css/u.css>', '') },
    { ...files, 'css/s.css': 'p { left: 0 }', 'none.css': 'i { top: 0 }' },
    files,
  ];
  for (const state of states) {
    const site = siteOf(state);
    expect(linkedSheets(site)).toEqual(surveySite(site).sheets);
  }
});
