import { expect, test } from '@jest/globals';
import { planWhole } from '../../plan/planWhole.ts';
import { proveSites } from '../../proof/proveSites.ts';
import { withAbsent } from '../../source/site.ts';
import { missingSheets } from '../../survey/missingSheets.ts';
import { pageOf, siteOf } from '../../testing/siteOf.ts';
import { applyOperations, describeOperationProblem } from '../operation.ts';
import { takenAsMissing } from './takeAsMissing.ts';

const site = siteOf({
  'a.html': pageOf('<link rel=stylesheet href=no.css>', '<p style="top:0">a'),
  'b.html': pageOf('<link rel=stylesheet href=there.css>', '<p style="top:0">b'),
  'there.css': '@import "gone/x.css"; p { left: 0 }',
});

test('what pages ask for and the site has not, by links and imports', () => {
  expect(missingSheets(site)).toEqual([
    { path: 'gone/x.css', pages: ['b.html'] },
    { path: 'no.css', pages: ['a.html'] },
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
