import { describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { pageEncoding } from './pageEncoding.ts';
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
    `<!-- ${'x'.repeat(1100)} --><meta charset=utf-8>`,
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
  expect(encodeText('a', 'shift_jis')).toBeUndefined();
});

test('a page that does not encode back is opaque', () => {
  expect(makeSiteFile('a.html', bytes('<meta charset=utf-8>\xff\xfe')).text).toBeUndefined();
  expect(makeSiteFile('a.html', bytes('<meta charset=shift_jis>\x83')).text).toBeUndefined();
  expect(makeSiteFile('a.html', bytes('<p>\xff')).text).toBe('<p>ÿ');
});
