import { describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { askChromium } from '../testing/chromium.ts';
import { isEncodingAgreed, pageEncoding } from './pageEncoding.ts';
import { declaredCharset, sheetEncoding } from './sheetEncoding.ts';
import { makeSiteFile } from './site.ts';
import { decodeText, encodeText } from './textCoding.ts';

const bytes = (text: string): Uint8Array => Uint8Array.from([...text].map((c) => c.charCodeAt(0)));

describe('pages: the same as html-encoding-sniffer 6.0.0 (npm), which follows the HTML Standard', () => {
  const pages = [
    '<!doctype html><p>plain',
    '<meta charset=utf-8><p>',
    '<META CHARSET="windows-1250">',
    "<meta http-equiv='Content-Type' content='text/html; charset=iso-8859-1'>",
    '<meta content="text/html; charset=koi8-r" http-equiv=content-type>',
    '<meta content="text/html; charset=koi8-r">',
    '<!-- <meta charset=utf-8> --><p>',
    '<title><meta charset=utf-8></title>',
    '<meta charset=utf-16>',
    '<meta charset=nonsense><meta charset=utf-8>',
    '<meta charset="">',
    '<?xml version="1.0" encoding="utf-8"?><meta charset=shift_jis>',
    '<meta charset=x-user-defined>',
    '\xef\xbb\xbf<meta charset=windows-1252>',
    '\xff\xfe<\0p\0>\0',
    '<p title="<meta charset=utf-8>"><meta charset=gbk>',
    '<META http-equiv="Content-Type" content="text/html;charset=us-ascii">',
  ];
  const script = fileURLToPath(new URL('../testing/sniffEncoding.mjs', import.meta.url));
  const answers = JSON.parse(
    execFileSync(process.execPath, [script], { input: JSON.stringify(pages), encoding: 'utf8' }),
  ) as string[];
  test.each(pages.map((page, i) => [page, answers[i]]))('%j is %s', (page, encoding) => {
    expect(pageEncoding(bytes(page!))).toBe(encoding);
  });
});

const long = 'x'.repeat(1100);

test('a later meta, an XML declaration, and where browsers part from the standard: Chromium', async () => {
  const pages = [
    `<!-- ${long} --><meta charset=utf-8>`,
    `<head><title>${long}</title><meta charset=utf-8></head>`,
    `<head><title>${long.repeat(50)}</title><meta charset=koi8-r></head>`,
    `<head><title>${long}</title></head><div><meta charset=koi8-r></div>`,
    `<head><title>${long}</title><template><meta charset=koi8-r></template></head>`,
    `<script>var a = "${long}<meta charset=koi8-r>"</script><meta charset=utf-8>`,
    '<?xml version="1.0" encoding="koi8-r"?><p>',
    "<?xml version='1.0' encoding='nope'?><meta charset=koi8-r>",
    '<meta charset=koi8-r><meta charset=utf-8>',
    '<meta charset="koi8&#45;r">',
    '<script>"<meta charset=koi8-r>"</script><meta charset=utf-8>',
    '<textarea><meta charset=koi8-r></textarea>',
  ];
  const asked = pages.map((page) => ({
    bytes: Buffer.from(page, 'latin1').toString('base64'),
    path: 'p.html',
    ask: 'document.characterSet.toLowerCase()',
  }));
  const answers = await askChromium(asked);
  const said = pages.map((page) => (isEncodingAgreed(bytes(page)) ? pageEncoding(bytes(page)) : 'not agreed'));
  const apart = pages.slice(-2);
  expect(said).toEqual(pages.map((page, i) => (apart.includes(page) ? 'not agreed' : answers[i])));
  expect(makeSiteFile('p.html', bytes(apart[0]!)).text).toBeUndefined();
});

// CSS Syntax 3, "The input byte stream"; rows as in css-parsing-tests' stylesheet_bytes (CC0), from memory
test.each([
  ['@charset "ISO-8859-5"; @\xE9', 'iso-8859-5'],
  ['@Charset "ISO-8859-5";', undefined],
  ["@charset 'ISO-8859-5';", undefined],
  ['@charset  "ISO-8859-5";', undefined],
  ['@charset "ISO-8859-5" ;', undefined],
  ['@charset "nonsense";', undefined],
  ['@charset "utf-16le";', 'utf-8'],
])('%s declares %s', (sheet, encoding) => {
  expect(declaredCharset(bytes(sheet))).toBe(encoding);
});

test('a sheet without a declaration is read as its page is', () => {
  expect(sheetEncoding(bytes('p{}'), 'windows-1252')).toBe('windows-1252');
  expect(sheetEncoding(bytes('\xef\xbb\xbfp{}'), 'windows-1252')).toBe('utf-8');
});

test.each([
  ['utf-8', 'a\uFEFFé\u{1F6A2}\r\n'],
  ['windows-1252', 'Ar draws – “y swnt” €'],
  ['koi8-r', 'паром'],
  ['iso-8859-2', 'žluťoučký'],
  ['utf-16le', '\uFEFFaé'],
  ['shift_jis', '表示 ｶﾅ <p class="a">'],
  ['euc-jp', '連絡船の時刻表'],
  ['euc-kr', '여객선 시간표'],
  ['gbk', '渡轮时刻表 €'],
  ['gb18030', '渡轮时刻表'],
  ['big5', '渡輪時刻表'],
])('%s writes back what it reads', (encoding, text) => {
  const written = encodeText(text, encoding)!;
  expect(decodeText(written, encoding)).toBe(text);
});

test('every byte of windows-1252 comes back', () => {
  const all = Uint8Array.from({ length: 256 }, (_, i) => i);
  expect(encodeText(decodeText(all, 'windows-1252'), 'windows-1252')).toEqual(all);
  // Encoding Standard, "index windows-1252": 0x96 is U+2013, not the C1 control some decoders give
  expect(decodeText(Uint8Array.of(0x96, 0x80), 'windows-1252')).toBe('–€');
});

test('what has no place in the encoding is refused, not replaced', () => {
  expect(encodeText('ŵ', 'windows-1252')).toBeUndefined();
  expect(encodeText('é', 'shift_jis')).toBeUndefined();
  expect(encodeText('a', 'iso-2022-jp')).toBeUndefined();
});

test('a page that does not encode back is opaque', () => {
  expect(makeSiteFile('a.html', bytes('<meta charset=utf-8>\xff\xfe')).text).toBeUndefined();
  expect(makeSiteFile('a.html', bytes('<meta charset=shift_jis>\x83')).text).toBeUndefined();
  expect(makeSiteFile('a.html', bytes('<p>\xff')).text).toBe('<p>ÿ');
});

test('what we write in an East Asian encoding is what Chromium reads', async () => {
  const encodings = ['shift_jis', 'euc-jp', 'euc-kr', 'gbk', 'big5'];
  // every fifth character of these blocks that has a place: kana, hangul, the common ideographs, full-width forms
  const blocks = [
    [0x20, 0x7e],
    [0x3041, 0x30fe],
    [0x4e00, 0x9fa5],
    [0xac00, 0xd7a3],
    [0xff01, 0xff5e],
  ] as const;
  const all = blocks.flatMap(([from, to]) =>
    Array.from({ length: to - from + 1 }, (_, i) => String.fromCharCode(from + i)).filter((_, i) => i % 5 === 0),
  );
  const texts = encodings.map((encoding) => all.filter((character) => encodeText(character, encoding)).join(''));
  const asks = encodings.map((encoding, i) => {
    const hex = Buffer.from(encodeText(texts[i]!, encoding)!).toString('hex');
    return {
      html: '<p>',
      ask: `new TextDecoder('${encoding}').decode(Uint8Array.from('${hex}'.match(/../g), (h) => parseInt(h, 16)))`,
    };
  });
  const read = await askChromium(asks);
  for (const [i, encoding] of encodings.entries()) {
    expect(texts[i]!.length).toBeGreaterThan(500);
    const part = [...texts[i]!].filter((character, at) => character !== [...String(read[i])][at]);
    expect({ encoding, part: part.length }).toEqual({ encoding, part: 0 });
  }
});

test('a page in Shift_JIS comes back byte for byte and can be edited; a sequence that parts is left alone', () => {
  const head = bytes('<meta charset=shift_jis><style>p::before{content:"');
  const page = makeSiteFile('a.html', Uint8Array.from([...head, 0x95, 0x5c, ...bytes('"}</style>')]));
  expect(page.text).toContain('content:"表"');
  // two sequences stand for one character: ours is the other one
  const twice = makeSiteFile('a.html', Uint8Array.from([...head, 0xfa, 0x54, ...bytes('"}</style>')]));
  expect(twice.text).toBeUndefined();
});
