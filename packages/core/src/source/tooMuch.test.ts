import { expect, test } from '@jest/globals';
import { checkSite } from '../checks/checkSite.ts';
import { proveSites } from '../proof/proveSites.ts';
import { makeSite, type Site } from './site.ts';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const siteOf = (files: Readonly<Record<string, string>>): Site =>
  makeSite(Object.entries(files).map(([path, text]) => [path, bytes(text)] as const));
const page = '<!DOCTYPE html><title>t</title><link rel=stylesheet href=s.css><p>x';
const rules = '.a{top:0}'.repeat(200_001);
const tags = `<!DOCTYPE html><title>t</title>${'<b>'.repeat(1_000_001)}`;

test('pages and sheets beyond what people write are carried along, said so, and never called the same when they changed', () => {
  const before = siteOf({ 'a.html': page, 's.css': rules, 'z.html': tags });
  expect(before.files.get('z.html')).toMatchObject({ kind: 'page', isTooMuch: true });
  expect(before.files.get('s.css')!.text).toBeUndefined();
  const found = checkSite(before).findings.filter(({ kind }) => kind === 'opaque-file');
  expect(found.map(({ sentence }) => sentence)).toEqual([
    '`s.css` and `z.html` hold more than a million tags or 200,000 rules, more than is looked at: kept as they are, never edited',
  ]);
  const verdicts = (after: Site): readonly string[] => proveSites(before, after).pages.map(({ verdict }) => verdict);
  expect(verdicts(before)).toEqual(['same', 'same']);
  expect(verdicts(siteOf({ 'a.html': page, 's.css': `${rules}p{color:red}`, 'z.html': tags }))[0]).not.toBe('same');
  expect(verdicts(siteOf({ 'a.html': page, 's.css': rules, 'z.html': `${tags}x` }))[1]).toBe('unsure');
});

test.each([
  ['a sheet it imports', { 't.css': 'p{color:red}' }, { 't.css': 'p{color:blue}' }],
  ['a picture it shows', { 't.png': '1' }, { 't.png': '2' }],
])('what such a sheet names counts as well: %s', (_shows, one, two) => {
  const named = { 'a.html': page, 's.css': `@import "t.css"; p { background: url(t.png) } ${rules}` };
  expect(proveSites(siteOf({ ...named, ...one }), siteOf({ ...named, ...two })).verdict).not.toBe('same');
});
