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

/** APPNOTE.TXT, "Language Encoding (EFS)": bit 11 of the flags says that names are UTF-8. */
function withoutMark(zip: Buffer): Buffer {
  for (let at = 0; at < zip.length - 46; at++) {
    const mark = zip.readUInt32LE(at);
    if (mark === 0x04034b50) zip[at + 7] = zip[at + 7]! & ~8;
    if (mark === 0x02014b50) zip[at + 9] = zip[at + 9]! & ~8;
  }
  return zip;
}

test('names without the mark of UTF-8 are that all the same where their bytes are; others are asked about', async () => {
  const unmarked = withoutMark(await makeZip([{ path: 'café.html', content: '<p>' }]));
  expect([...(await readArchive(unmarked)).files.keys()]).toEqual(['café.html']);
  const old = withoutMark(withName(await makeZip([{ path: 'caf_.html', content: '<p>' }]), 'caf_', 'caf\x82'));
  await expect(readArchive(old)).rejects.toMatchObject({
    code: 'bad-archive',
    message: expect.stringContaining(
      'café.html (IBM 437, names=cp437), café.html (IBM 850, names=cp850), caf‚.html (Windows 1252, names=windows-1252)',
    ),
  });
  expect([...(await readArchive(old, { names: 'cp437' })).files.keys()]).toEqual(['café.html']);
});

test('what is left out is counted: folders as one, no more kept than there is room for', async () => {
  const zip = await makeZip([
    { path: 'a.html', content: '<p>' },
    ...Array.from({ length: 2500 }, (_, i) => ({ path: `.git/objects/${i}`, content: '0'.repeat(100) })),
    ...Array.from({ length: 30 }, (_, i) => ({ path: `d${i}/Thumbs.db`, content: Buffer.alloc(900_000) })),
  ]);
  const { files, leftOut } = await readArchive(zip);
  expect([...files.keys()]).toEqual(['a.html']);
  expect(leftOut[0]).toEqual({ path: '.git/', reason: 'it is not part of a site (2500 files)' });
  expect(leftOut).toHaveLength(31);
  expect(leftOut.reduce((sum, { content }) => sum + (content?.length ?? 0), 0)).toBeLessThanOrEqual(10_000_000);
  expect(leftOut.filter(({ content }) => content)).toHaveLength(11);
});

test('names that objects have of themselves are left out, with or without a folder around all', async () => {
  for (const folder of ['', 'site/']) {
    const { files, leftOut } = await readArchive(
      await makeZip(
        ['a.html', '__proto__', 'toString', 'x/constructor'].map((path) => ({ path: folder + path, content: '' })),
      ),
    );
    expect([...files.keys()]).toEqual(['a.html', 'x/constructor']);
    expect(leftOut.map(({ path }) => path)).toEqual(['__proto__', 'toString']);
  }
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
    /\.\.\/\.\.\/\.\.\/x\.html climbs out of the site/,
  ],
  [
    'an absolute path',
    async () => withName(await makeZip([page]), 'aaaaaaaaaa.html', '/etc/passwd.htm'),
    'bad-archive',
    /\/etc\/passwd\.htm is absolute/,
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
    'a file and a folder of one name',
    () => makeZip(['a.html', 'a.html/b.png'].map((path) => ({ path, content: '' }))),
    'bad-archive',
    /a\.html is a file in the archive and a folder too \(of a\.html\/b\.png\)/,
  ],
  [
    'bytes that are not those put in',
    async () =>
      withName(await makeZip([{ path: 'a.png', content: Buffer.from('pixels'), compress: false }]), 'pixels', 'pixelz'),
    'bad-archive',
    /a\.png is damaged in the archive/,
  ],
  [
    'a drive letter',
    async () => withName(await makeZip([page]), 'aaaaaaaaaa.html', 'C:\\aaaaaaa.html'),
    'bad-archive',
    /is absolute/,
  ],
  [
    'more entries than a site may have, whatever they are',
    async () => {
      const zip = await makeZip([page]);
      // APPNOTE.TXT, "End of central directory record": how many entries there are
      zip.writeUInt16LE(40_001, zip.length - 22 + 10);
      return zip;
    },
    'archive-too-large',
    /40,001 entries/,
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
