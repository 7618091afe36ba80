import { expect, test } from '@jest/globals';
import { planWhole } from '../../plan/planWhole.ts';
import { proveSites } from '../../proof/proveSites.ts';
import { withAbsent } from '../../source/site.ts';
import { sheetsNotHere } from '../../survey/sheetsNotHere.ts';
import { pageOf, siteOf } from '../../testing/siteOf.ts';
import { describeTakenAsNothing } from '../../values/takenAsNothing.ts';
import { applyOperations, describeOperationProblem } from '../operation.ts';
import { takenAsMissing } from './takeAsMissing.ts';

const site = siteOf({
  'a.html': pageOf('<link rel=stylesheet href=no.css>', '<p style="top:0">a'),
  'b.html': pageOf('<link rel=stylesheet href=there.css>', '<p style="top:0">b'),
  'there.css': '@import "gone/x.css"; p { left: 0 }',
});

test('what pages ask for and the site has not, by links and imports', () => {
  expect(sheetsNotHere(site)).toEqual([
    { path: 'gone/x.css', isRemote: false, pages: ['b.html'] },
    { path: 'no.css', isRemote: false, pages: ['a.html'] },
  ]);
});

test('a sheet that is not here may beat a class; taken as missing it is nothing, before and after', () => {
  const kept = planWhole(site, 'css/site.css');
  expect(kept.ok && kept.value.stays.map(({ page, code }) => `${page} ${code}`)).toContain('a.html unread-sheet');
  const operation = { kind: 'take-as-missing', sheets: ['no.css', 'gone/x.css'] } as const;
  const applied = applyOperations(site, [operation]);
  if (!applied.ok) throw new Error('refused');
  const gone = planWhole(applied.value.site, 'css/site.css');
  if (!gone.ok) throw new Error(gone.problem.kind);
  expect([gone.value.stays, gone.value.proof.verdict]).toEqual([[], 'same']);
  // the same states looked at without that answer are not the same
  expect(proveSites(site, { files: gone.value.site.files }).verdict).toBe('differs');
  expect(proveSites(withAbsent(site, takenAsMissing([operation])), gone.value.site).verdict).toBe('same');
});

test('a file of the site is not missing', () => {
  const refused = applyOperations(site, [{ kind: 'take-as-missing', sheets: ['there.css'] }]);
  expect(refused.ok || describeOperationProblem(refused.problem.problem)).toBe(
    'there.css is a file of the site. Only a sheet that is not here can be taken as missing.',
  );
});

test('a sheet that comes to be at such a place counts', () => {
  const absent = withAbsent(site, ['no.css']);
  const after = { ...absent, files: new Map([...absent.files, ...siteOf({ 'no.css': 'p { bottom: 9px }' }).files]) };
  expect(proveSites(absent, after).verdict).toBe('differs');
});

const fonts = 'https://fonts.example/f.css?family=Brindle';
const distant = siteOf({
  'a.html': pageOf(`<link rel=stylesheet href="${fonts}"><style>p { left: 0 }</style>`, '<p style="top:0">a'),
  'b.html': pageOf('<style>@import "//other.example/x.css"; p { left: 0 }</style>', '<p>b'),
});

test('sheets on other servers are asked about by their addresses', () => {
  expect(sheetsNotHere(distant)).toEqual([
    { path: '//other.example/x.css', isRemote: true, pages: ['b.html'] },
    { path: fonts, isRemote: true, pages: ['a.html'] },
  ]);
});

test('what stands on another server may beat a class, until somebody says that it is nothing to elements', () => {
  const kept = planWhole(distant, 'css/site.css');
  expect(kept.ok && kept.value.stays.map(({ page, code }) => `${page} ${code}`)).toContain('a.html unread-sheet');
  const applied = applyOperations(distant, [{ kind: 'take-as-missing', sheets: [fonts] }]);
  if (!applied.ok) throw new Error('refused');
  expect(describeTakenAsNothing([fonts, 'no.css'])).toBe(
    `no.css missing on the server too; ${fonts} saying nothing about these pages' elements`,
  );
  const planned = planWhole(applied.value.site, 'css/site.css');
  if (!planned.ok) throw new Error(planned.problem.kind);
  expect(planned.value.stays.filter(({ page }) => page === 'a.html')).toEqual([]);
  expect(planned.value.proof.verdict).toBe('same');
  expect(planned.value.site.files.get('a.html')!.text).toContain(fonts);
});

test('fonts it may define still stand where they stood: of two of one name the later counts, and a link that went is missed', () => {
  const link = `<link rel=stylesheet href="${fonts}">`;
  const face = '<style>@font-face { font-family: Brindle; src: url(b.woff2) }</style>';
  const one = (head: string) => withAbsent(siteOf({ 'a.html': pageOf(head, '<p>a') }), [fonts]);
  expect(proveSites(one(link + face), one(face + link)).verdict).toBe('differs');
  expect(proveSites(one(link + face), one(face)).verdict).toBe('differs');
  // a rule may change places with it
  const rule = '<style>p { left: 0 }</style>';
  expect(proveSites(one(link + rule), one(rule + link)).verdict).toBe('same');
  const planned = planWhole(one(face + link + rule), 'css/site.css');
  expect(planned.ok && [planned.value.proof.verdict, planned.value.stays]).toEqual(['same', []]);
});

test.each([
  ['css/my sheet.css', 'Take css/my sheet.css as missing on the server too'],
  [fonts, `Take ${fonts} as saying nothing about these pages' elements`],
])('in the draft %s is said whole', (sheet, sentence) => {
  const applied = applyOperations(distant, [{ kind: 'take-as-missing', sheets: [sheet] }]);
  expect(applied.ok && applied.value.steps.map((step) => step.sentence)).toEqual([sentence]);
});
