import { Type } from '@sinclair/typebox';
import { pageScripts } from '../../scripts/pageScripts.ts';
import type { FileEdits } from '../../source/changeSet.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import { pagesOf, sheetsOf, type Site } from '../../source/site.ts';
import { openPage } from '../../survey/openPage.ts';
import { closed, onPages, operationType, type OperationPlan } from '../operationType.ts';
import { isPlainName, nameEditsInSheet, type NameKind } from './nameEdits.ts';
import { pageNameEdits } from './pageNameEdits.ts';

/** Gives a class, an ID or a custom property another name, in all sheets and pages at once, with what refers to it. */
export interface RenameName {
  readonly kind: 'rename-name';
  readonly of: NameKind;
  /** Without `.` or `#`; a custom property with its dashes. */
  readonly from: string;
  readonly to: string;
  /** The new name may be there already: both mean one from then on. */
  readonly join?: boolean;
}

export type RenameNameProblem =
  | { readonly kind: 'name-not-legal'; readonly name: string; readonly of: NameKind }
  | { readonly kind: 'no-such-name'; readonly name: string; readonly of: NameKind }
  | { readonly kind: 'name-clash'; readonly name: string; readonly of: NameKind; readonly files: readonly string[] };

const words: Readonly<Record<NameKind, string>> = { class: 'class', id: 'ID', 'custom-property': 'custom property' };
const marks: Readonly<Record<NameKind, string>> = { class: '.', id: '#', 'custom-property': '' };

export function planRenameName(site: Site, operation: RenameName): Result<OperationPlan, RenameNameProblem> {
  const { of, from, to, join = false } = operation;
  if (!isPlainName(to, of) || to === from) return fail({ kind: 'name-not-legal', name: to, of });
  const taken = filesWith(site, of, to);
  if (taken.length > 0 && !join) return fail({ kind: 'name-clash', name: to, of, files: taken });
  const edited: FileEdits[] = [];
  for (const { path, hash, text = '' } of sheetsOf(site)) {
    const edits = nameEditsInSheet(text, { start: 0, end: text.length }, operation);
    if (edits.length > 0) edited.push({ path, hash, edits });
  }
  const sheets = edited.length;
  const holding = of === 'id' ? pagesWithId(site, from) : undefined;
  const scripted: string[] = [];
  for (const file of pagesOf(site)) {
    if (!file.text?.includes(from)) continue;
    const page = openPage(file);
    if (!page) continue;
    const edits = pageNameEdits(page, operation, (path) => holding?.has(path) ?? false);
    if (edits.length > 0) edited.push({ path: file.path, hash: file.hash, edits: [...edits] });
    if (pageScripts(page.tree, page.path, page.sources, site).some(({ text }) => hasWord(text, from)))
      scripted.push(page.path);
  }
  if (edited.length === 0) return fail({ kind: 'no-such-name', name: from, of });
  const pages = edited.slice(sheets).map(({ path }) => path);
  const where = [
    ...(sheets > 0 ? [sheets === 1 ? edited[0]!.path : `${sheets} sheets`] : []),
    ...(pages.length > 0 ? [onPages(pages)] : []),
  ];
  const risk =
    scripted.length === 0 ? '' : `. Scripts of ${onPages(scripted)} say ${from} as well and stay as they are`;
  const sentence = `Rename the ${words[of]} ${from} to ${to}, in ${where.join(' and on ')}${risk}`;
  return succeed({ changes: { created: [], edited, deleted: [] }, sentence });
}

const hasWord = (text: string, name: string): boolean =>
  new RegExp(`(?<![\\w-])${name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(?![\\w-])`).test(text);

function pagesWithId(site: Site, id: string): ReadonlySet<string> {
  const out = new Set<string>();
  for (const file of pagesOf(site))
    if (file.text?.includes(id) && openPage(file)?.tree.elements.some((element) => element.id === id))
      out.add(file.path);
  return out;
}

/** Files in which the name stands already. */
function filesWith(site: Site, of: NameKind, name: string): readonly string[] {
  const out: string[] = [];
  const probe = { of, from: name, to: `${name}x` };
  for (const { path, text = '' } of sheetsOf(site))
    if (nameEditsInSheet(text, { start: 0, end: text.length }, probe).length > 0) out.push(path);
  for (const file of pagesOf(site)) {
    const page = file.text?.includes(name) ? openPage(file) : undefined;
    if (page && pageNameEdits(page, probe, () => true).length > 0) out.push(file.path);
  }
  return out;
}

export const renameName = operationType<RenameName, RenameNameProblem>()({
  kind: 'rename-name',
  schema: Type.Object(
    {
      kind: Type.Literal('rename-name'),
      of: Type.Union([Type.Literal('class'), Type.Literal('id'), Type.Literal('custom-property')]),
      from: Type.String({ minLength: 1, maxLength: 400 }),
      to: Type.String({ minLength: 1, maxLength: 400 }),
      join: Type.Optional(Type.Boolean()),
    },
    closed,
  ),
  plan: planRenameName,
  problems: {
    'name-not-legal': ({ name, of }) =>
      of === 'custom-property'
        ? `${name} cannot be the name of a custom property: it begins with two dashes and goes on with letters, digits, hyphens and underscores, such as --brand.`
        : /\s/.test(name)
          ? `“${name}” holds a space, and a space parts names: it would be several. Letters, digits, hyphens and underscores are allowed, a letter first.`
          : `${name} cannot be the new name of the ${words[of]}: letters, digits, hyphens and underscores are allowed, a letter first, and another name than before.`,
    'no-such-name': ({ name, of }) => `No page and no sheet has the ${words[of]} ${name}.`,
    'name-clash': ({ name, of, files }) =>
      `${marks[of]}${name} is there already, in ${files.slice(0, 3).join(', ')}${files.length > 3 ? ` and ${files.length - 3} more` : ''}: both would mean the same from then on. Choose another name, or join them.`,
  },
});
