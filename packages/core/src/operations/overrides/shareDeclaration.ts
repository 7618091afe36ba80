import { dropProblems, localDeclarationFields } from './dropDeclaration.ts';
import { closed, fields, onPages, operationType } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import { parseSheet } from '../../sheet/parseSheet.ts';
import { urlReferences } from '../../sheet/urlReferences.ts';
import type { StyleRule } from '../../sheet/sheet.ts';
import { lineEndOf } from '../../source/lineEnds.ts';
import { indentationAt } from '../../source/removal.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';
import type { Edit } from '../../source/span.ts';
import { openPage } from '../../survey/openPage.ts';
import { longhandsOf } from '../../values/longhands.ts';
import { asciiText, rebasedText } from '../gather/printRule.ts';
import {
  planDropDeclaration,
  printed,
  type DropPlan,
  type DropProblem,
  type LocalDeclaration,
} from './dropDeclaration.ts';
import { styleRules } from './dropEdits.ts';

/** Makes what pages say the shared rule's own value, and takes it out of the pages: the look of the others changes. */
export interface ShareDeclaration extends LocalDeclaration {
  readonly kind: 'share-declaration';
  readonly sheet: string;
  /** The selectors of the shared rule, as written. */
  readonly rule: string;
  /** Pages it is taken out of; all when absent. */
  readonly pages?: readonly string[];
}

export type ShareProblem =
  | DropProblem
  | { readonly kind: 'no-shared-rule'; readonly sheet: string; readonly rule: string }
  | { readonly kind: 'address-not-shared'; readonly what: string };

export function planShareDeclaration(site: Site, operation: ShareDeclaration): Result<DropPlan, ShareProblem> {
  const { sheet, rule, property } = operation;
  const file = site.files.get(sheet);
  const text = file?.kind === 'sheet' ? file.text : undefined;
  const sets = new Set(longhandsOf(property));
  const says = (one: { readonly property: string }): boolean =>
    one.property === property || longhandsOf(one.property).some((name) => sets.has(name));
  const rules =
    text === undefined ? [] : [...styleRules(parseSheet(text).rules)].filter((one) => one.selector === rule);
  const shared = rules.findLast((one) => one.declarations.some(says)) ?? rules.at(-1);
  if (!file || text === undefined || !shared) return fail({ kind: 'no-shared-rule', sheet, rule });
  const dropped = planDropDeclaration(site, { ...operation, kind: 'drop-declaration' });
  if (!dropped.ok) return dropped;
  const rebased = sharedText(site, dropped.value.pages, operation.value, sheet);
  if (rebased === undefined) return fail({ kind: 'address-not-shared', what: printed(operation) });
  const edit = valueEdit(text, shared, property, asciiText(rebased), operation.important ?? false);
  const { changes } = dropped.value;
  const edited = [{ path: sheet, hash: file.hash, edits: [edit] }, ...changes.edited];
  return succeed({ ...dropped.value, changes: { ...changes, edited } });
}

/** The value as the sheet says it; undefined where its addresses mean different files on these pages, or cannot be moved. */
function sharedText(site: Site, pages: readonly string[], value: string, sheet: string): string | undefined {
  if (urlReferences(value).length === 0) return value;
  const texts = new Set(
    pages.map((page) => rebasedText(value, openPage(site.files.get(page)!)!.sources.base, sheet) ?? ''),
  );
  const [text] = texts;
  return texts.size === 1 && text !== '' ? text : undefined;
}

/** The value in place of the old one; behind a shorthand, or where nothing says it, as a declaration of its own. */
function valueEdit(text: string, rule: StyleRule, property: string, value: string, important: boolean): Edit {
  const own = rule.declarations.findLast((one) => one.property === property);
  const written = value + (important && !own?.important ? ' !important' : '');
  if (own) return { span: own.valueSpan, text: written };
  const last = rule.declarations.at(-1);
  if (!last) {
    const at = text.indexOf('{', rule.selectorSpan.end) + 1;
    return { span: { start: at, end: at }, text: ` ${property}: ${written};` };
  }
  const indent = indentationAt(text, last.span.start);
  const gap = indent === '' ? ' ' : lineEndOf(text) + indent;
  const at = last.span.end;
  return { span: { start: at, end: at }, text: `;${gap}${property}: ${written}` };
}

export const shareDeclaration = operationType<ShareDeclaration, ShareProblem>()({
  kind: 'share-declaration',
  schema: Type.Object(
    {
      kind: Type.Literal('share-declaration'),
      ...localDeclarationFields,
      sheet: fields.sheet,
      rule: Type.String({ maxLength: 20_000 }),
      pages: fields.somePages,
    },
    closed,
  ),
  plan(site, operation) {
    const plan = planShareDeclaration(site, operation);
    if (!plan.ok) return plan;
    const { changes, pages } = plan.value;
    const { property, value, rule, sheet } = operation;
    const sentence = `Let ${rule} in ${sheet} say ${property}: ${value}, and drop that from ${onPages(pages)}`;
    return succeed({ changes, sentence });
  },
  problems: {
    ...dropProblems,
    'no-shared-rule': ({ sheet, rule }) => `${sheet} has no rule ${rule}.`,
    'address-not-shared': ({ what }) =>
      `${what} holds an address that means different files on these pages. Make it shared for pages of one folder.`,
  },
});
