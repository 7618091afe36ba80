import { expect, test } from '@jest/globals';
import { outcomesAfter } from '../precedence/outcomesAfter.ts';
import type { Site } from '../source/site.ts';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import { SiteChecker, type SiteCheck } from './checkSite.ts';

const link = '<link rel="stylesheet" href="s.css">';
const files = {
  'a.html': pageOf(link, '<p class="x">a'),
  'b.html': pageOf(link, '<p>b'),
  'c.html': pageOf('', '<p class="x">c'),
  's.css': 'p { top: 0 }\nli { top: 0 }\n',
};
const before = siteOf(files);

/** How many pages are read to know another state: by the checks, and by the questions over the site. */
function readFor(change: Partial<Record<keyof typeof files, string>>): readonly [checks: number, questions: number] {
  const fresh = siteOf(change as Record<string, string>);
  const after: Site = {
    ...before,
    files: new Map([...before.files].map(([path, file]) => [path, fresh.files.get(path) ?? file])),
  };
  const checker = new SiteChecker();
  checker.check(before);
  const check = checker.check(after);
  expect(check.survey).toEqual(new SiteChecker().check(after).survey);
  const outcomes = outcomesAfter(undefined, before);
  outcomes.readAll();
  let questions = 0;
  outcomesAfter(outcomes, after).readAll(() => questions++);
  return [checker.pagesRead, questions];
}

test('a rule put into a sheet: only pages that link it and hold what the rule asks for are read again', () => {
  expect(readFor({ 's.css': `.x { left: 0 }\n${files['s.css']}` })).toEqual([1, 1]);
  expect(readFor({ 's.css': `${files['s.css']}.none { left: 0 }` })).toEqual([0, 0]);
});

test('a page that changed is read alone', () => {
  expect(readFor({ 'c.html': pageOf('', '<p>c') })).toEqual([1, 1]);
});

test('a rule for everybody, or an import: every page that links the sheet', () => {
  expect(readFor({ 's.css': `p { left: 0 }\n${files['s.css']}` })).toEqual([2, 2]);
  expect(readFor({ 's.css': `@import "t.css";\n${files['s.css']}` })).toEqual([2, 2]);
});

test('a sheet without rules, or one that comes to be a baseline, is told of on every page', () => {
  expect(readFor({ 's.css': '' })[0]).toBe(3);
  expect(readFor({ 's.css': 'p { top: 0; margin: 0 }\nli { top: 0 }\nq { padding: 0 }' })[0]).toBe(3);
});

test('who stops a check loses nothing of what was seen', () => {
  const checker = new SiteChecker();
  const onPage = (done: number): void => {
    if (done === 2) throw new Error('stopped');
  };
  expect(() => checker.check(before, { onPage })).toThrow('stopped');
  expect(pick(checker.check(before))).toEqual(pick(new SiteChecker().check(before)));
  expect(checker.pagesRead).toBe(1);
  // a change of which only a part was looked at: gone on with, or taken back
  const after: Site = { ...before, files: new Map([...before.files, ...siteOf({ 's.css': 'p { left: 0 }' }).files]) };
  expect(() => checker.check(after, { onPage })).toThrow('stopped');
  checker.check(before);
  expect(checker.pagesRead).toBe(0);
  expect(() => checker.check(after, { onPage: (done) => onPage(done + 1) })).toThrow('stopped');
  expect(pick(checker.check(after))).toEqual(pick(new SiteChecker().check(after)));
  expect(checker.pagesRead).toBe(1);
  // with another sheet every page is another one
  const more: Site = { ...before, files: new Map([...after.files, ...siteOf({ 'new.css': 'p { left: 0 }' }).files]) };
  expect(() => checker.check(more, { onPage })).toThrow('stopped');
  checker.check(after);
  expect(checker.pagesRead).toBe(0);
});

const pick = ({ survey, findings }: SiteCheck): Pick<SiteCheck, 'survey' | 'findings'> => ({ survey, findings });
