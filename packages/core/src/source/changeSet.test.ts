import { expect, test } from '@jest/globals';
import { siteOf, textIn } from '../testing/siteOf.ts';
import { applyChangeSet, changedFiles, describeChangeProblem, emptyChangeSet } from './changeSet.ts';

const site = siteOf({
  'a.html': '<p>a',
  'b.css': 'p{}',
  'raw.html': Uint8Array.of(
    0x3c,
    0x6d,
    0x65,
    0x74,
    0x61,
    0x20,
    0x63,
    0x68,
    0x61,
    0x72,
    0x73,
    0x65,
    0x74,
    0x3d,
    0x75,
    0x74,
    0x66,
    0x2d,
    0x38,
    0x3e,
    0xff,
  ),
});
const edit = (path: string, text: string, hash = site.files.get(path)?.hash ?? '') => ({
  path,
  hash,
  edits: [{ span: { start: 0, end: 0 }, text }],
});

test('edits, creates and deletes at once, and leaves the given site alone', () => {
  const result = applyChangeSet(site, {
    created: [{ path: 'c.css', text: 'é' }],
    edited: [edit('a.html', 'x')],
    deleted: ['b.css'],
  });
  if (!result.ok) throw new Error(describeChangeProblem(result.problem));
  expect(textIn(result.value, 'a.html')).toBe('x<p>a');
  expect(result.value.files.get('c.css')!.bytes).toEqual(Uint8Array.of(0xc3, 0xa9));
  expect(result.value.files.has('b.css')).toBe(false);
  expect(textIn(site, 'a.html')).toBe('<p>a');
  expect(changedFiles(site, result.value).map((c) => `${c.path} ${c.change}`)).toEqual([
    'a.html edited',
    'b.css deleted',
    'c.css created',
  ]);
});

test.each([
  ['a file that is there', { ...emptyChangeSet, created: [{ path: 'a.html', text: '' }] }, 'file-exists'],
  ...['../x.css', '/x.css', 'css/../../x.css', 'a\\b.css', './x.css', 'css//x.css', 'x\0.css', 'x\ud800.css', ''].map(
    (path) =>
      [
        `the path ${JSON.stringify(path)}`,
        { ...emptyChangeSet, created: [{ path, text: '' }] },
        'bad-file-path',
      ] as const,
  ),
  ['a file that is not', { ...emptyChangeSet, deleted: ['x'] }, 'file-missing'],
  ['an edit of a file that is not', { ...emptyChangeSet, edited: [edit('x', '')] }, 'file-missing'],
  ['an edit of another version', { ...emptyChangeSet, edited: [edit('a.html', '', 'other')] }, 'file-changed'],
  ['an edit of an opaque file', { ...emptyChangeSet, edited: [edit('raw.html', '')] }, 'file-opaque'],
  ['a character the encoding lacks', { ...emptyChangeSet, edited: [edit('a.html', 'ŵ')] }, 'not-in-encoding'],
  [
    'an edit outside',
    { ...emptyChangeSet, edited: [{ ...edit('a.html', ''), edits: [{ span: { start: 9, end: 9 }, text: '' }] }] },
    'bad-edit',
  ],
])('refuses %s', (_shows, changes, kind) => {
  const result = applyChangeSet(site, changes);
  expect(result).toMatchObject({ ok: false, problem: { kind } });
  if (!result.ok) expect(describeChangeProblem(result.problem)).toMatch(/\.$/);
});
