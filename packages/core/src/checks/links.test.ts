import { createHash } from 'node:crypto';
import { describe, expect, test } from '@jest/globals';
import { applyOperations } from '../operations/operation.ts';
import { planWhole } from '../plan/planWhole.ts';
import { link, pages, style, type CheckCase } from '../testing/checkCases.ts';
import { checkCases } from '../testing/runCheckCases.ts';
import { pageOf, siteOf, textIn } from '../testing/siteOf.ts';
import { checkSite } from './checkSite.ts';

const sheet = { 'css/s.css': 'p { color: red }' };
const hash = (text: string): string => `sha256-${createHash('sha256').update(text).digest('base64')}`;
const linking = pages(4, link('css/s.css'));

const cases: Readonly<Record<string, readonly CheckCase[]>> = {
  'page-without-link': [
    [
      'one page of many does not link the sheet',
      { ...sheet, ...linking, 'z.html': pageOf('', '<p>x</p>') },
      '`z` does not link `css/s.css`; the other 4 pages do',
      { ...sheet, ...linking, 'z.html': pageOf('', '<meta http-equiv=refresh content="0; url=a.html">') },
    ],
    [
      'all pages of a folder but one; an import reaches the sheet too',
      {
        ...sheet,
        'n/1.html': pageOf(link('../css/s.css'), ''),
        'n/2.html': pageOf(link('../css/s.css'), ''),
        'n/3.html': pageOf('', ''),
        'a.html': pageOf('', ''),
        'b.html': pageOf('', ''),
      },
      '`n/3` does not link `css/s.css`; the other 2 pages in `n/` do',
      {
        ...sheet,
        'n/1.html': pageOf(link('../css/s.css'), ''),
        'n/2.html': pageOf(link('../css/s.css'), ''),
        'n/3.html': pageOf(style('@import "../css/s.css";'), ''),
        'a.html': pageOf('', ''),
        'b.html': pageOf('', ''),
      },
    ],
  ],
  'link-missing': [
    [
      'a path that is right only from the root',
      { ...sheet, 'n/a.html': pageOf(link('css/s.css'), '') },
      '`n/a` links `n/css/s.css`, which is not there; `css/s.css` is',
      { ...sheet, 'n/a.html': pageOf(link('/css/s.css'), '') },
    ],
    [
      'no such sheet; a disabled link asks for none',
      { 'a.html': pageOf(link('gone.css'), '') },
      '`a` links `gone.css`, which is not there',
      {
        'a.html': pageOf(
          link('gone.css', ' disabled') + link('data:text/css,p%7B%7D') + link('//host.example/x.css'),
          '',
        ),
      },
    ],
    [
      'an import that leads nowhere',
      { 'css/s.css': '@import "t.css";', 'a.html': pageOf(link('css/s.css'), ''), 't.css': 'p{}' },
      '`css/s.css` links `css/t.css`, which is not there; `t.css` is',
      { 'css/s.css': '@import "../t.css";', 'a.html': pageOf(link('css/s.css'), ''), 't.css': 'p{}' },
    ],
  ],
  'link-wrong-case': [
    [
      'other capitals',
      { ...sheet, 'a.html': pageOf(link('css/S.css?v=1'), '') },
      '`a` links `css/S.css`; the file is `css/s.css`, another name on most servers',
      { ...sheet, 'a.html': pageOf(link('CSS/../css/s.css'), '') },
    ],
  ],
  'link-in-comment': [
    [
      'a link inside a comment; beside it the same link outside',
      { ...sheet, 'a.html': pageOf(`<!-- later ${link('css/s.css')} -->`, '') },
      '`a` has `css/s.css` inside a comment, where it does nothing',
      { ...sheet, 'a.html': pageOf(`<!-- later ${link('css/s.css')} -->${link('css/s.css')}`, '') },
    ],
    [
      'a block inside a comment; a comment inside a block',
      { 'a.html': pageOf('<!-- <style>p{top:0}</style> -->', '') },
      '`a` has a block of rules inside a comment, where it does nothing',
      { 'a.html': pageOf('<style><!-- p{top:0} --></style><!-- the style of links -->', '') },
    ],
  ],
  'conditional-comment': [
    [
      'for one old browser',
      { 'a.html': pageOf(`<!--[if lt IE 9]>${link('old.css')}<![endif]-->`, '') },
      '`a` holds styling in conditional comments, which today’s browsers pass over',
      { 'a.html': pageOf('<!--[if lt IE 9]><script src=old.js></script><![endif]-->', '') },
    ],
  ],
  'link-after-block': [
    [
      'on this page only, and a rule flips; the same where nothing competes',
      {
        ...sheet,
        ...pages(2, link('css/s.css') + style('p{color:blue}')),
        'z.html': pageOf(style('p{color:blue}') + link('css/s.css'), '<p>x'),
      },
      '`z` links `css/s.css` after its own block; 1 rule flips',
      {
        ...sheet,
        ...pages(2, link('css/s.css') + style('p{color:blue}')),
        'z.html': pageOf(style('p.x{color:blue}') + link('css/s.css'), '<p class=x>x'),
      },
    ],
    [
      'where all pages do it, it is how the site is made',
      {
        ...sheet,
        ...pages(2, link('css/s.css') + style('p{color:blue}')),
        'z.html': pageOf(`${style('p{color:blue}')}\n\t${link('css/s.css')}\n`, '<p>x'),
      },
      '`z` links `css/s.css` after its own block; 1 rule flips',
      { ...sheet, ...pages(3, style('p{color:blue}') + link('css/s.css')) },
    ],
  ],
  'sheet-order': [
    [
      'two sheets in the other order',
      {
        ...sheet,
        't.css': 'p{color:blue}',
        ...pages(3, link('css/s.css') + link('t.css')),
        'z.html': pageOf(link('t.css') + link('css/s.css'), '<p>x'),
      },
      '`z` links `css/s.css` after `t.css`; 3 other pages have it first; 1 rule flips',
      {
        ...sheet,
        't.css': 'p{margin:0}',
        ...pages(3, link('css/s.css') + link('t.css')),
        'z.html': pageOf(link('t.css') + link('css/s.css'), '<p>x'),
      },
    ],
  ],
  'baseline-last': [
    [
      'a baseline after the author’s own sheet, on every page',
      {
        'base.css': 'body,p,h1{margin:0}h1{font-size:1em}a{color:inherit}',
        's.css': 'p{margin:1em}',
        'a.html': pageOf(link('s.css') + link('base.css'), '<p>x'),
      },
      '`a` links `base.css`, a baseline that belongs first, after `s.css`; 1 rule flips',
      {
        'base.css': 'body,p,h1{margin:0}h1{font-size:1em}a{color:inherit}',
        's.css': 'p{margin:1em}',
        'a.html': pageOf(link('base.css') + link('s.css'), '<p>x'),
      },
    ],
  ],
  'link-refused': [
    [
      'a sheet was changed after its hash was written; another of the hashes still fits',
      { ...sheet, 'a.html': pageOf(link('css/s.css', ` integrity="${hash('p{}')}"`), '') },
      '`a` promises by `integrity` other bytes than `css/s.css` has; browsers refuse the sheet there',
      { ...sheet, 'a.html': pageOf(link('css/s.css', ` integrity="${hash('p{}')} ${hash(sheet['css/s.css'])}"`), '') },
    ],
  ],
  'linked-twice': [
    [
      'the same sheet twice; once more for print is another matter',
      { ...sheet, 'a.html': pageOf(`${link('css/s.css')}\n${link('./css/s.css')}`, '') },
      '`a` links `css/s.css` twice',
      { ...sheet, 'a.html': pageOf(link('css/s.css') + link('css/s.css', ' media=print'), '') },
    ],
  ],
  'mixed-paths': [
    [
      'from the root here, from the page there',
      { ...sheet, ...linking, 'z.html': pageOf(link('/css/s.css'), '') },
      '`z` links `css/s.css` from the site root, 4 pages the other way',
      { ...sheet, 'a.html': pageOf(link('/css/s.css'), ''), 'n/z.html': pageOf(link('/css/s.css'), '') },
    ],
  ],
  'remote-sheet': [
    [
      'from another server',
      { 'a.html': pageOf(link('https://host.example/x.css'), '') },
      '`a` takes `https://host.example/x.css` from another server; what it says is not known here',
      { 'a.html': pageOf('<link rel=icon href="https://host.example/x.png">', '') },
    ],
  ],
  'import-chain': [
    [
      'three sheets one after the other; two are no chain',
      { 'a.css': '@import "b.css";', 'b.css': '@import "c.css";', 'c.css': 'p{}', 'a.html': pageOf(link('a.css'), '') },
      '`a.css` imports `b.css`, which imports `c.css`: a browser asks for them one after the other',
      {
        'a.css': '@import "b.css"; @import "c.css";',
        'b.css': 'p{}',
        'c.css': 'p{}',
        'a.html': pageOf(link('a.css'), ''),
      },
    ],
  ],
};

describe('links', () => checkCases(cases));

const three = (first: string): Record<string, string> => ({
  'base.css': 'p{top:0}',
  'site.css': 'p{top:1px}',
  'a.html': pageOf(first, ''),
  'b.html': pageOf(`${link('base.css')}\n${link('site.css')}\n<style>q{top:0}</style>`, ''),
  'c.html': pageOf(`${link('base.css')}\n${link('site.css')}\n<style>q{top:0}</style>`, ''),
});

test.each([
  ['behind what stands before it elsewhere', `<!-- ${link('site.css')} -->\n${link('base.css')}`, `${link('base.css')}\n${link('site.css')}`, undefined],
  ['before what follows it elsewhere', `${link('site.css')}\n<!--\n${link('base.css')}\n-->`, `${link('base.css')}\n${link('site.css')}`, undefined],
  ['before the block', `${link('base.css')}\n<style>q{top:0}</style>\n<!--${link('site.css')}-->`, `${link('base.css')}\n${link('site.css')}\n<style>q{top:0}</style>`, undefined],
  ['where it stands', `${link('base.css')}\n<!-- ${link('site.css')} -->`, `${link('base.css')}\n${link('site.css')}`, undefined],
  ['with what its author wrote, who is asked first', `<!-- in May:\n${link('site.css')} -->\n${link('base.css')}`, `<!-- in May: -->\n${link('base.css')}\n${link('site.css')}`, 'in May:'],
])('a link in a comment is put %s', (_where, head, after, asks) => {
  const site = siteOf(three(head));
  const found = checkSite(site, { kinds: ['link-in-comment'] }).findings;
  expect(found.map(({ action }) => action)).toEqual([{ does: 'mend', label: 'Remove it', ...(asks === undefined ? {} : { asks }) }]);
  const mended = applyOperations(site, [{ kind: 'mend', finding: found[0]!.id }]);
  expect(mended.ok && textIn(mended.value.site, 'a.html')).toContain(`\n${after}\n</head>`);
}); // oxfmt-ignore

test('what a plan left out is not called forgotten; what it was never asked about is', () => {
  const one = pageOf('<style>.n { top: 0 }</style>', '<p class=n>');
  const files = Object.fromEntries(Array.from({ length: 9 }, (_, i) => [`${i}.html`, one]));
  const site = siteOf({ ...files, 'z.html': pageOf('', '<p class=n>') });
  const plan = planWhole(site, 's.css');
  if (!plan.ok) throw new Error('refused');
  const gathered = applyOperations(site, plan.value.operations);
  if (!gathered.ok) throw new Error('refused');
  const kinds = ['page-without-link', 'container-missing'] as const;
  expect(checkSite(gathered.value.site, { kinds: [...kinds] }).findings).toEqual([]);
  const brought = { files: gathered.value.site.files };
  expect(checkSite(brought, { kinds: [...kinds] }).findings.map(({ kind }) => kind)).toEqual(['page-without-link']);
});
