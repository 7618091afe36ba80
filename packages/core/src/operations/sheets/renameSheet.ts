import { describeSheetPathProblem } from '../sheetPath.ts';
import { closed, fields, onPages, operationType } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import { attributeEdit, referenceTo } from '../../checks/retarget.ts';
import { attributeOf } from '../../page/nodes.ts';
import { parseSheet } from '../../sheet/parseSheet.ts';
import type { ImportRule } from '../../sheet/sheet.ts';
import { printReference, urlReferences } from '../../sheet/urlReferences.ts';
import type { ChangeSet, FileEdits } from '../../source/changeSet.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import { pagesOf, sheetsOf, type Site } from '../../source/site.ts';
import type { Edit } from '../../source/span.ts';
import { openPage, type OpenPage } from '../../survey/openPage.ts';
import { resolveReference, siteBase, type Base } from '../../values/urls.ts';
import { rebasedText } from '../gather/printRule.ts';
import { parseSheetPath, type SheetPathProblem } from '../sheetPath.ts';

/** Gives a sheet another name or folder: with its links, the imports that name it, and its own addresses. */
export interface RenameSheet {
  readonly kind: 'rename-sheet';
  readonly sheet: string;
  readonly to: string;
}

export type RenameSheetProblem =
  | { readonly kind: 'sheet-not-there'; readonly sheet: string }
  | { readonly kind: 'new-sheet-path'; readonly path: SheetPathProblem }
  | { readonly kind: 'name-taken'; readonly path: string }
  | { readonly kind: 'sheet-not-moved'; readonly sheet: string };

export interface RenamePlan {
  readonly changes: ChangeSet;
  readonly to: string;
  readonly pages: readonly string[];
}

export function planRenameSheet(site: Site, { sheet, to }: RenameSheet): Result<RenamePlan, RenameSheetProblem> {
  const file = site.files.get(sheet);
  if (file?.kind !== 'sheet') return fail({ kind: 'sheet-not-there', sheet });
  // a name that differs in case only is free once the old one is gone
  const others = new Map(site.files);
  others.delete(sheet);
  const path = parseSheetPath(to, { files: others });
  if (!path.ok) return fail({ kind: 'new-sheet-path', path: path.problem });
  if (others.has(path.value) || path.value === sheet) return fail({ kind: 'name-taken', path: path.value });
  const text = file.text === undefined ? undefined : rebasedText(file.text, siteBase(sheet), path.value);
  if (text === undefined) return fail({ kind: 'sheet-not-moved', sheet });
  const edited: FileEdits[] = [];
  for (const other of sheetsOf(site)) {
    if (other.path === sheet) continue;
    const edits = importEdits(other.text ?? '', 0, siteBase(other.path), sheet, path.value);
    if (edits.length > 0) edited.push({ path: other.path, hash: other.hash, edits });
  }
  for (const other of pagesOf(site)) {
    const page = openPage(other);
    const edits = page ? pageEdits(page, sheet, path.value) : [];
    if (edits.length > 0) edited.push({ path: other.path, hash: other.hash, edits });
  }
  const created = [{ path: path.value, text, encoding: file.encoding ?? 'utf-8' }];
  const pages = edited.map((e) => e.path).filter((p) => site.files.get(p)?.kind === 'page');
  return succeed({ changes: { created, edited, deleted: [sheet] }, to: path.value, pages });
}

/** Every attribute that leads to the sheet (links of any kind), and the imports of embedded blocks. */
function pageEdits(page: OpenPage, sheet: string, to: string): readonly Edit[] {
  const { base } = page.sources;
  const inTags = page.tree.elements.flatMap((element): readonly Edit[] => {
    if (element.tag !== 'link' && element.tag !== 'a') return [];
    const reference = attributeOf(element, 'href');
    if (reference === undefined || !leadsTo(reference, base, sheet)) return [];
    const written = referenceTo(to, base, reference);
    const edit = written === undefined ? undefined : attributeEdit(page, element, 'href', written);
    return edit ? [edit] : [];
  });
  const inBlocks = page.blocks.flatMap((block) => {
    const { start, end } = block.source.contents;
    return block.source.foreign ? [] : importEdits(page.text.slice(start, end), start, block.base, sheet, to);
  });
  return [...inTags, ...inBlocks];
}

function importEdits(text: string, offset: number, base: Base, sheet: string, to: string): readonly Edit[] {
  return importsOf(text, base, sheet).flatMap((rule): readonly Edit[] => {
    const written = urlReferences(text, rule.span.start, rule.span.end)[0];
    const reference = referenceTo(to, base, rule.reference);
    if (!written || reference === undefined) return [];
    const { start, end } = written.span;
    const span = { start: offset + start, end: offset + end };
    return [{ span, text: printReference(reference, text.slice(start, end)) }];
  });
}

/** The imports of a sheet's or block's text that lead to a sheet. */
export const importsOf = (text: string, base: Base, sheet: string): readonly ImportRule[] =>
  /import/i.test(text)
    ? parseSheet(text).rules.filter(
        (rule): rule is ImportRule => rule.kind === 'import' && leadsTo(rule.reference, base, sheet),
      )
    : [];

function leadsTo(reference: string, base: Base, sheet: string): boolean {
  const target = resolveReference(reference, base);
  return target.kind === 'site' && target.path === sheet;
}

export const renameSheet = operationType<RenameSheet, RenameSheetProblem>()({
  kind: 'rename-sheet',
  schema: Type.Object({ kind: Type.Literal('rename-sheet'), sheet: fields.sheet, to: fields.sheet }, closed),
  plan(site, operation) {
    const plan = planRenameSheet(site, operation);
    if (!plan.ok) return plan;
    const { changes, pages, to } = plan.value;
    const sentence = `Rename ${operation.sheet} to ${to}, with its links on ${onPages(pages)}`;
    const decided = site.leftOut?.get(operation.sheet);
    const leftOut = decided ? [{ sheet: to, pages: [...decided] }] : [];
    return succeed({ changes, sentence, leftOut });
  },
  problems: {
    'sheet-not-there': ({ sheet }) =>
      `There is no sheet ${sheet} in this site. Name one of its sheets, or gather rules into a new one.`,
    'new-sheet-path': ({ path }) => describeSheetPathProblem(path),
    'name-taken': ({ path }) => `${path} is there already. Choose a name that no file has.`,
    'sheet-not-moved': ({ sheet }) =>
      `${sheet} holds an address that cannot be written for another folder, or cannot be read back to its own bytes.`,
  },
});
