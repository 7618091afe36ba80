import { trimmed } from '../../source/space.ts';
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
import { openPage, type OpenPage } from '../../survey/openPage.ts';
import { selectorText } from '../../survey/selectorText.ts';
import { longhandsOf } from '../../values/longhands.ts';
import { asciiText, closingText, rebasedText } from '../gather/printRule.ts';
import { ruleStyleOf } from '../gather/ruleStyle.ts';
import {
  isIt,
  planDropDeclaration,
  printed,
  type DropPlan,
  type DropProblem,
  type LocalDeclaration,
} from './dropDeclaration.ts';
import { styleRules } from './dropEdits.ts';

/**
 * Lets a shared sheet say what pages say, and takes it out of the pages: others may look different. A rule of just these selectors
 * takes it where the sheet has one, else a rule of its own: one that means more than they do is not touched.
 */
export interface ShareDeclaration extends LocalDeclaration {
  readonly kind: 'share-declaration';
  readonly sheet: string;
  /** The selectors the sheet is to say it for. */
  readonly rule: string;
  /** Pages it is taken out of; all when absent. */
  readonly pages?: readonly string[];
}

export type ShareProblem =
  | DropProblem
  | { readonly kind: 'no-shared-sheet'; readonly sheet: string }
  | { readonly kind: 'under-condition'; readonly what: string; readonly page: string }
  | { readonly kind: 'address-not-shared'; readonly what: string };

export function planShareDeclaration(site: Site, operation: ShareDeclaration): Result<DropPlan, ShareProblem> {
  const { sheet } = operation;
  const file = site.files.get(sheet);
  const text = file?.kind === 'sheet' ? file.text : undefined;
  if (!file || text === undefined) return fail({ kind: 'no-shared-sheet', sheet });
  const dropped = planDropDeclaration(site, { ...operation, kind: 'drop-declaration' });
  if (!dropped.ok) return dropped;
  const { changes, pages } = dropped.value;
  const conditional = pages.find((page) => isConditional(openPage(site.files.get(page)!)!, operation));
  if (conditional !== undefined) return fail({ kind: 'under-condition', what: printed(operation), page: conditional });
  const rebased = sharedText(site, pages, operation.value, sheet);
  if (rebased === undefined) return fail({ kind: 'address-not-shared', what: printed(operation) });
  const edit = sheetEdit(site, text, { ...operation, value: asciiText(rebased) });
  const edited = [{ path: sheet, hash: file.hash, edits: [edit] }, ...changes.edited];
  return succeed({ ...dropped.value, changes: { ...changes, edited } });
}

/** Whether a block says it under a condition: the sheet would say it always. */
const isConditional = (page: OpenPage, wanted: LocalDeclaration): boolean =>
  wanted.where === 'block' &&
  page.blocks.some(({ sheet }) =>
    sheet.rules.some(
      (rule) =>
        rule.kind === 'group' &&
        [...styleRules(rule.rules)].some(
          (one) => one.selector === wanted.selector && one.declarations.some((said) => isIt(said, wanted)),
        ),
    ),
  );

/** Into the last plain rule of just these selectors, unless a later rule says the same property; else a rule at the end. */
function sheetEdit(site: Site, text: string, { rule, property, value, important = false }: ShareDeclaration): Edit {
  const rules = parseSheet(text).rules.filter((one): one is StyleRule => one.kind === 'style');
  const sets = new Set(longhandsOf(property));
  const says = (one: StyleRule): boolean =>
    one.declarations.some(
      (said) => said.property === property || longhandsOf(said.property).some((name) => sets.has(name)),
    );
  const wanted = selectorText(rule);
  const own = rules.findLast((one) => selectorText(one.selector) === wanted && one.nested.length === 0 && one.closed);
  if (own && (says(own) || !rules.slice(rules.indexOf(own) + 1).some(says)))
    return valueEdit(text, own, property, value, important);
  const lineEnd = lineEndOf(text);
  const { oneLine, indent } = ruleStyleOf(site);
  const said = `${property}: ${value}${important ? ' !important' : ''};`;
  const written = oneLine
    ? `${asciiText(rule)} { ${said} }`
    : [`${asciiText(rule)} {`, indent + said, '}'].join(lineEnd);
  const gap = trimmed(text) === '' || /[\r\n]$/.test(text) ? '' : lineEnd;
  const at = { start: text.length, end: text.length };
  return { span: at, text: (closingText(text) ?? '') + gap + written + lineEnd };
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
    'no-shared-sheet': ({ sheet }) => `There is no sheet ${sheet} in this site that can be edited.`,
    'under-condition': ({ what, page }) =>
      `${what} stands under a condition in ${page}; the sheet would say it always. Gather the rule instead.`,
    'address-not-shared': ({ what }) =>
      `${what} holds an address that means different files on these pages. Make it shared for pages of one folder.`,
  },
});
