import { wholeLines } from '../source/removal.ts';
import { declaredCharset, isAscii } from '../source/sheetEncoding.ts';
import { byteOrderMark, isEncodingAgreed } from '../source/pageEncoding.ts';
import { decodeText } from '../source/textCoding.ts';
import { isServedAsXml, type Site, type SiteFile } from '../source/site.ts';
import { countRules } from '../survey/countRules.ts';
import type { Check, CheckContext, CheckedSheet, CheckedSite, CheckMaker } from './check.ts';
import { FindingGroup, FindingGroups } from './findingGroup.ts';
import type { FoundFinding } from './finding.ts';
import { code, list, namesInWords, verb } from './words.ts';

/** Tags of pages, looked for where neither comments nor strings are. */
export const pageMarkup = /<\/?(?:style|html|head|body|link|meta|title|script)\b[^>]*>|<!doctype\b[^>]*>/gi;

/** What is wrong with sheets as files: page markup in them, nothing in them, nobody links them, another encoding. */
export const sheetFiles: CheckMaker = {
  kinds: ['markup-in-sheet', 'empty-sheet', 'unlinked-sheet', 'sheet-charset', 'opaque-file'],
  make: (context) => new SheetFiles(context),
};

class SheetFiles implements Check {
  private readonly markup = new FindingGroups();
  private readonly empty = new FindingGroups();
  private readonly all: CheckedSheet[] = [];
  private readonly context: CheckContext;

  constructor(context: CheckContext) {
    this.context = context;
  }

  sheet(sheet: CheckedSheet): void {
    const { path, text } = sheet;
    this.all.push(sheet);
    const plain = blanked(text, sheet.sheet.comments);
    for (const found of plain.matchAll(pageMarkup)) {
      const span = { start: found.index, end: found.index + found[0].length };
      this.markup
        .about(path)
        .at(sheet, span.start)
        .mend(path, { span: wholeLines(text, span), text: '' });
    }
    if (countRules(sheet.sheet.rules) === 0 && !sheet.sheet.rules.some((r) => r.kind === 'import'))
      this.empty.about(path).at(sheet, 0);
  }

  findings({ survey }: CheckedSite): readonly FoundFinding[] {
    const pagesOf = new Map(survey.sheets.map((s) => [s.path, s.pages]));
    const withPages = (group: FindingGroup): FindingGroup => {
      for (const page of pagesOf.get(group.subject) ?? []) group.page(page);
      return group;
    };
    const reached = (path: string): boolean => (pagesOf.get(path)?.length ?? 0) > 0;
    return [
      ...this.markup.all.map((g) => {
        const tag = pageMarkup.exec(this.all.find((s) => s.path === g.subject)!.text)![0];
        pageMarkup.lastIndex = 0;
        return withPages(g).finding(
          'markup-in-sheet',
          `${code(g.subject)} holds ${code(tag)}, which is page markup; the rule after it is lost`,
          { mend: 'Take the tag out' },
        );
      }),
      ...this.empty.all
        .filter((g) => reached(g.subject))
        .map((g) =>
          withPages(g.aboutSheet(g.subject)).finding(
            'empty-sheet',
            `${code(g.subject)} is linked by ${verb(pagesOf.get(g.subject)!.length, `${pagesOf.get(g.subject)!.length} pages`, 'a page')} and holds no rule`,
            { look: 'Open it' },
          ),
        ),
      ...this.all
        .filter(({ path }) => !reached(path))
        .map((sheet) =>
          new FindingGroup(sheet.path)
            .at(sheet, 0)
            .finding('unlinked-sheet', `No page links ${code(sheet.path)}`, { look: 'Open it' }),
        ),
      ...this.all.flatMap((sheet) => charset(sheet, pagesOf.get(sheet.path) ?? [], this.context.site)),
      ...opaque(this.context.site),
    ];
  }
}

/** Comments and strings as spaces, so that what is found is neither. */
export function blanked(text: string, comments: readonly { start: number; end: number }[]): string {
  let out = text;
  for (const { start, end } of comments) out = out.slice(0, start) + ' '.repeat(end - start) + out.slice(end);
  return out.replace(/"(?:[^"\\\n]|\\.)*"|'(?:[^'\\\n]|\\.)*'/g, (s) => ' '.repeat(s.length));
}

/** CSS Syntax 3, "The input byte stream": without a mark or `@charset`, each page lends the sheet its own encoding. */
function charset(sheet: CheckedSheet, pages: readonly string[], site: Site): readonly FoundFinding[] {
  const { bytes } = sheet.file;
  if (isAscii(bytes)) return [];
  const group = new FindingGroup(sheet.path).at(sheet, 0);
  const garbled = (encoding: string): boolean => encoding === 'utf-8' && decodeText(bytes, 'utf-8').includes('\ufffd');
  const looksUtf8 = !decodeText(bytes, 'utf-8').includes('\ufffd');
  const declared = byteOrderMark(bytes) ?? declaredCharset(bytes);
  if (declared !== undefined) {
    if (!garbled(declared)) return [];
    for (const page of pages) group.page(page);
    return [
      group.finding('sheet-charset', `${code(sheet.path)} says it is ${declared}, and is not`, { look: 'Open it' }),
    ];
  }
  const wrong = pages.filter((page) => {
    const encoding = site.files.get(page)?.encoding ?? 'utf-8';
    return garbled(encoding) || (looksUtf8 && encoding !== 'utf-8');
  });
  if (wrong.length === 0) return [];
  for (const page of wrong) group.page(page);
  const read = list([...new Set(wrong.map((page) => site.files.get(page)?.encoding ?? 'utf-8'))]);
  const is = looksUtf8 ? 'utf-8' : 'another encoding';
  if (looksUtf8) group.mend(sheet.path, { span: { start: 0, end: 0 }, text: '@charset "utf-8";\n' });
  const sentence = `${code(sheet.path)} is written in ${is} and does not say so; ${verb(wrong.length, `${wrong.length} pages read`, 'a page reads')} it as ${read}`;
  return [group.finding('sheet-charset', sentence, { mend: 'Say so in it', look: 'Open it' })];
}

/** Files that are carried along and never edited, by the reason. */
function opaque(site: Site): readonly FoundFinding[] {
  const files = [...site.files.values()].filter((f: SiteFile) => f.kind !== 'other' && f.text === undefined);
  const isXml = (f: SiteFile): boolean => isServedAsXml(f.path);
  const isTooMuch = (f: SiteFile): boolean => f.isTooMuch === true;
  const isTornApart = (f: SiteFile): boolean =>
    !isXml(f) && !isTooMuch(f) && f.kind === 'page' && !isEncodingAgreed(f.bytes);
  const rest = files.filter((f) => !isXml(f) && !isTornApart(f) && !isTooMuch(f));
  const encodings = list([...new Set(rest.map((f) => f.encoding ?? 'text'))]);
  return [
    ...opaqueFor('files', rest, (n) => `${verb(n, 'do', 'does')} not encode back to the same bytes as ${encodings}`),
    ...opaqueFor(
      'pages as XML',
      files.filter((f) => isXml(f) && !isTooMuch(f)),
      (n) => `${verb(n, 'are', 'is')} sent as XML, which is not read here`,
    ),
    ...opaqueFor(
      'large ones',
      files.filter(isTooMuch),
      (n) => `${verb(n, 'hold', 'holds')} more than a million tags or 200,000 rules, more than is looked at`,
    ),
    ...opaqueFor(
      'encodings',
      files.filter(isTornApart),
      (n) => `${verb(n, 'say', 'says')} an encoding where some browsers look and others do not`,
    ),
  ];
}

function opaqueFor(
  subject: string,
  files: readonly SiteFile[],
  why: (count: number) => string,
): readonly FoundFinding[] {
  if (files.length === 0) return [];
  const group = new FindingGroup(subject);
  for (const { path, kind } of files) {
    group.places.push({ path, line: 1, column: 1 });
    if (kind === 'page') group.page(path);
  }
  const names = namesInWords(files.map((f) => f.path));
  const sentence = `${names} ${why(files.length)}: kept as they are, never edited`;
  return [group.finding('opaque-file', sentence, { look: 'Look at it' })];
}
