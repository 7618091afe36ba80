import { expect, test } from '@jest/globals';
import { makeZip, withName } from '../testing/makeZip.ts';
import { readArchive } from './readArchive.ts';

test('takes everything, puts a common folder aside, leaves out what is no part of a site', async () => {
  const zip = await makeZip([
    { path: 'site/index.html', content: '<p>' },
    { path: 'site/img/é.png', content: Buffer.from([0, 255]) },
    { path: 'site/link.html', content: 'index.html', mode: 0o120777 },
    { path: 'site/.DS_Store', content: 'x' },
  ]);
  const read = await readArchive(zip);
  expect(read.prefix).toBe('site/');
  expect([...read.files.keys()]).toEqual(['index.html', 'img/é.png']);
  expect(read.leftOut.map((f) => f.path)).toEqual(['link.html', '.DS_Store']);
  expect(read.leftOut.map((f) => f.content?.toString())).toEqual([undefined, 'x']);
});

test('names without the mark of UTF-8 are read as old archives write them', async () => {
  const zip = withName(await makeZip([{ path: 'caf_.html', content: '<p>' }]), 'caf_', 'caf\x82');
  // APPNOTE.TXT, "Language Encoding (EFS)": bit 11 of the flags; without it names are in code page 437
  for (let at = 0; at < zip.length - 46; at++) {
    const mark = zip.readUInt32LE(at);
    if (mark === 0x04034b50) zip[at + 7] = zip[at + 7]! & ~8;
    if (mark === 0x02014b50) zip[at + 9] = zip[at + 9]! & ~8;
  }
  expect([...(await readArchive(zip)).files.keys()]).toEqual(['café.html']);
});

const page = { path: 'aaaaaaaaaa.html', content: '<p>' };

test.each([
  ['what is no zip', () => Promise.resolve(Buffer.from('hello')), 'bad-archive', /no zip we can read/],
  ['nothing at all', () => Promise.resolve(Buffer.alloc(0)), 'bad-archive', /no zip/],
  ['a truncated zip', async () => (await makeZip([page])).subarray(0, 60), 'bad-archive', /no zip/],
  ['an empty zip', () => makeZip([]), 'bad-archive', /holds no file/],
  [
    'a climbing path',
    async () => withName(await makeZip([page]), 'aaaaaaaaaa.html', '../../../x.html'),
    'bad-archive',
    /\.\.\/\.\.\/\.\.\/x\.html leaves the site/,
  ],
  [
    'an absolute path',
    async () => withName(await makeZip([page]), 'aaaaaaaaaa.html', '/etc/passwd.htm'),
    'bad-archive',
    /leaves the site/,
  ],
  [
    'a name twice',
    async () =>
      withName(await makeZip([page, { path: 'bbbbbbbbbb.html', content: '' }]), 'bbbbbbbbbb.html', 'aaaaaaaaaa.html'),
    'bad-archive',
    /stands in the archive twice/,
  ],
  [
    'a page over 20 MB',
    () => makeZip([{ path: 'big.html', content: Buffer.alloc(20_000_001, 'a') }]),
    'archive-too-large',
    /big\.html is larger than 20 MB/,
  ],
  [
    'a bomb: 210 MB in a few kilobytes',
    () => makeZip(['a', 'b', 'c'].map((n) => ({ path: `${n}.bin`, content: Buffer.alloc(70_000_000) }))),
    'archive-too-large',
    /more than 200 MB/,
  ],
  [
    'too many files',
    () => makeZip(Array.from({ length: 10_001 }, (_, i) => ({ path: `${i}.txt`, content: '' }))),
    'archive-too-large',
    /more than 10,000 files/,
  ],
])('refuses %s', async (_shows, zip, code, message) => {
  await expect(readArchive(await zip())).rejects.toMatchObject({ code, message: expect.stringMatching(message) });
});
