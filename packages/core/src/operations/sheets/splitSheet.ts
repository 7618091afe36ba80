import { Type } from '@sinclair/typebox';
import { attributeOf } from '../../page/nodes.ts';
import { attributeEdit, referenceTo } from '../../checks/retarget.ts';
import { applyEdits } from '../../source/applyEdits.ts';
import { lineEndOf } from '../../source/lineEnds.ts';
import { indentationAt } from '../../source/removal.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';
import type { Edit, Span } from '../../source/span.ts';
import { siteBase, type Base } from '../../values/urls.ts';
import { printReference, urlReferences } from '../../sheet/urlReferences.ts';
import type { OpenPage } from '../../survey/openPage.ts';
import type { LinkedSource } from '../../page/styleSources.ts';
import { rebasedText } from '../gather/printRule.ts';
import { closed, fields, onPages, operationType, type OperationPlan } from '../operationType.ts';
import {
  editableSheet,
  findRule,
  RuleRefSchema,
  ruleProblems,
  type RuleProblem,
  type RuleRef,
} from '../rules/ruleRef.ts';
import { withLead } from '../rules/sheetRules.ts';
import { describeSheetPathProblem, parseSheetPath, type SheetPathProblem } from '../sheetPath.ts';
import { editWays } from './linksAndImports.ts';

/** All from a rule on goes to a new sheet, which stands right behind the first wherever that is linked or imported: nothing looks different. */
export interface SplitSheet {
  readonly kind: 'split-sheet';
  readonly sheet: string;
  readonly from: RuleRef;
  readonly to: string;
}

export type SplitSheetProblem =
  | RuleProblem
  | { readonly kind: 'split-path'; readonly path: SheetPathProblem }
  | { readonly kind: 'split-taken'; readonly path: string }
  | {
      readonly kind: 'split-refused';
      readonly sheet: string;
      readonly why: 'namespace' | 'inside' | 'address' | 'link';
    };

export function planSplitSheet(site: Site, operation: SplitSheet): Result<OperationPlan, SplitSheetProblem> {
  const { sheet: path, from, to } = operation;
  const opened = editableSheet(site, path);
  if (!opened.ok) return opened;
  const { file, text, sheet } = opened.value;
  const found = findRule(sheet, from);
  if (!found) return fail({ kind: 'rule-not-in-sheet', sheet: path, selector: from.selector });
  const named = parseSheetPath(to, site);
  if (!named.ok) return fail({ kind: 'split-path', path: named.problem });
  if (site.files.has(named.value)) return fail({ kind: 'split-taken', path: named.value });
  const refused = (why: 'namespace' | 'inside' | 'address' | 'link'): Result<never, SplitSheetProblem> =>
    fail({ kind: 'split-refused', sheet: path, why });
  if (found.groups.length > 0) return refused('inside');
  if (sheet.rules.some((rule) => rule.kind === 'statement' && rule.name === 'namespace')) return refused('namespace');
  const { start } = withLead(text, sheet, found.rule);
  const rest = rebasedText(text.slice(start), siteBase(path), named.value);
  if (rest === undefined) return refused('address');
  const charset = /^\ufeff?@charset "[^"\n]*";/.exec(text)?.[0];
  const created = [
    {
      path: named.value,
      text: charset === undefined ? rest : charset + lineEndOf(text) + rest,
      encoding: file.encoding ?? 'utf-8',
    },
  ];
  let hasLost = false;
  const ways = editWays(site, path, {
    link: (page, link) => {
      const tag = copiedTag(page, link, named.value);
      if (tag === undefined) hasLost = true;
      return tag === undefined ? [] : [behind(page.text, link.span, tag)];
    },
    statement: (whole, span, base, reference) => {
      const said = copiedImport(whole.slice(span.start, span.end), base, reference, named.value);
      if (said === undefined) hasLost = true;
      return said === undefined ? [] : [behind(whole, span, said)];
    },
  });
  if (hasLost) return refused('link');
  const cut = { path, hash: file.hash, edits: [{ span: { start, end: text.length }, text: '' }] };
  const changes = { created, edited: [cut, ...ways.edited], deleted: [] };
  const sentence = `Part ${path} at ${from.selector}: the rest goes to ${named.value}, linked from ${onPages(ways.pages)}`;
  return succeed({ changes, sentence });
}

/** The link's tag with another address; undefined where it names the bytes it expects, or the page counts from another server. */
function copiedTag(page: OpenPage, { element, span }: LinkedSource, to: string): string | undefined {
  const reference = attributeOf(element, 'href');
  if (reference === undefined || attributeOf(element, 'integrity') !== undefined) return undefined;
  const written = referenceTo(to, page.sources.base, reference.replace(/[?#].*$/s, ''));
  const edit = written === undefined ? undefined : attributeEdit(page, element, 'href', written);
  if (!edit) return undefined;
  const own = { start: edit.span.start - span.start, end: edit.span.end - span.start };
  const done = applyEdits(page.text.slice(span.start, span.end), [{ span: own, text: edit.text }]);
  // two elements of one ID are none
  return done.ok && attributeOf(element, 'id') === undefined ? done.value : undefined;
}

function copiedImport(written: string, base: Base, reference: string, to: string): string | undefined {
  const address = urlReferences(written)[0];
  const said = referenceTo(to, base, reference.replace(/[?#].*$/s, ''));
  if (!address || said === undefined) return undefined;
  const { start, end } = address.span;
  return written.slice(0, start) + printReference(said, written.slice(start, end)) + written.slice(end);
}

/** On a line of its own where the first stands on one. */
function behind(text: string, { start, end }: Span, written: string): Edit {
  const closesLine = /^[\t ]*(?:[\r\n]|$)/.test(text.slice(end, end + 200));
  const gap = closesLine ? lineEndOf(text) + indentationAt(text, start) : '';
  return { span: { start: end, end }, text: gap + written };
}

export const splitSheet = operationType<SplitSheet, SplitSheetProblem>()({
  kind: 'split-sheet',
  schema: Type.Object(
    { kind: Type.Literal('split-sheet'), sheet: fields.sheet, from: RuleRefSchema, to: fields.sheet },
    closed,
  ),
  plan: planSplitSheet,
  problems: {
    ...ruleProblems,
    'split-path': ({ path }) => describeSheetPathProblem(path),
    'split-taken': ({ path }) => `${path} is there already. Choose a name that no file has.`,
    'split-refused': ({ sheet, why }) => `${sheet} cannot be parted there: ${splitReasons[why]}`,
  },
});

const splitReasons = {
  namespace: 'it names namespaces, which count for its own rules only.',
  inside: 'the rule stands inside an at-rule. Choose one that stands outside.',
  address: 'a rule holds an address that cannot be written for the other folder.',
  link: 'a link or import of it cannot be written a second time: it has an ID or an integrity, or its page counts paths from another server.',
};
