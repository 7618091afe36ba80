import { Random } from './random.ts';

/** Files by path, each byte as one character. */
export type ByteTexts = Readonly<Record<string, string>>;

/** A name that every encoding reads otherwise, and one that is no UTF-8. */
const names = ['x\xc3\xa9', 'x\xe9'] as const;
const labels = ['utf-8', 'UTF8', 'windows-1252', 'iso-8859-1', 'koi8-r', 'iso-8859-2', 'shift_jis', 'gbk', 'utf-16', 'utf-16le', 'x-user-defined', 'iso-2022-kr', 'iso-2022-jp', 'replacement', 'utf-7', 'utf-32', 'x-sjis', 'csunicode', 'macintosh', 'cp1251', 'ascii', 'nonsense', '', ' utf-8 '] as const; // oxfmt-ignore
const marks = { utf8: '\xef\xbb\xbf', little: '\xff\xfe', big: '\xfe\xff' } as const;

/**
 * A page `p.html`, a sheet it links and one that this imports, whose encodings are declared early, late, twice, in the wrong place, by
 * marks, by the link, or not at all. Each sheet gives `z-index` or `order` to one of two classes that are told apart by their bytes.
 */
export function encodedSite(seed: number): ByteTexts {
  const random = new Random(seed);
  const linked = random.chance(0.4) ? ` charset="${random.pick(labels).trim()}"` : '';
  const imports = random.chance(0.6);
  const body = `<link rel=stylesheet href=s.css${linked}></head><body><p class="${random.pick(names)}">t</p></body></html>`;
  const page = `${random.times(0, 5, () => headPart(random)).join('')}${body}`;
  return {
    'p.html': encoded(`${random.pick(['<!DOCTYPE html>', '', '<?xml version="1.0" encoding="koi8-r"?><!DOCTYPE html>'])}<html><head>${page}`, random), // oxfmt-ignore
    's.css': encoded(`${charsetRule(random)}${imports ? '@import "t.css";\n' : ''}${rules('z-index')}`, random),
    't.css': encoded(`${charsetRule(random)}${rules('order')}`, random),
  };
}

const rules = (property: string): string => names.map((name, i) => `.${name} { ${property}: ${i + 1} }\n`).join('');

function headPart(random: Random): string {
  const label = random.pick(labels);
  const filler = 'x'.repeat(random.pick([0, 10, 600, 1020, 1100]));
  return random.pick([
    `<meta charset="${label}">`,
    `<meta charset=${label.trim() || 'utf-8'}>`,
    `<META CHARSET='${label}'>`,
    `<meta http-equiv="Content-Type" content="text/html; charset=${label}">`,
    `<meta content="text/html; charset=${label}">`,
    `<meta name=a content=b>`,
    `<!-- ${filler} <meta charset=${label}> -->`,
    `<title>${filler}</title>`,
    `<script>var a = "${filler}<meta charset=${label}>"</script>`,
    `<style>/* ${filler} */</style>`,
  ]);
}

function charsetRule(random: Random): string {
  const label = random.pick(labels);
  if (random.chance(0.5)) return '';
  return random.pick([
    `@charset "${label}";\n`,
    `@charset "${label}";`,
    `@charset '${label}';\n`,
    `@CHARSET "${label}";\n`,
    ` @charset "${label}";\n`,
    `@charset  "${label}";\n`,
  ]);
}

/** With a byte order mark before it, now and then; two bytes a character where the mark says so. */
function encoded(text: string, random: Random): string {
  if (random.chance(0.7)) return text;
  const mark = random.pick(['utf8', 'utf8', 'little', 'big'] as const);
  if (mark === 'utf8') return marks.utf8 + text;
  const wide = [...text].map((c) => (mark === 'little' ? `${c}\0` : `\0${c}`)).join('');
  return marks[mark] + wide;
}
