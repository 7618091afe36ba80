import { trimmed } from '../../source/space.ts';
import { parseSheet } from '../../sheet/parseSheet.ts';
import type { FileEdits } from '../../source/changeSet.ts';
import { lineEndOf } from '../../source/lineEnds.ts';
import { byteOrderMark } from '../../source/pageEncoding.ts';
import { declaredCharset } from '../../source/sheetEncoding.ts';
import type { SiteFile } from '../../source/site.ts';
import { textOf } from '../../source/span.ts';
import type { PagePlan } from './gatherPlan.ts';
import { asciiText, closingText } from './printRule.ts';
import { printUnits } from './printUnits.ts';
import { blockUnitsOf, type BlockUnit } from '../../survey/blockUnits.ts';
import { siteBase } from '../../values/urls.ts';
import { unitsOfSheet } from '../../survey/unitsOfSheet.ts';

export type SheetChange =
  | { readonly kind: 'created'; readonly text: string }
  | { readonly kind: 'edited'; readonly edits: FileEdits }
  | { readonly kind: 'none' };

/** Where in a sheet that is there rules go: before all its rules, before one by its family, or behind all. */
export type SheetPlace = 'start' | 'end' | { readonly before: string };

/**
 * The sheet with the gathered rules in their place, those it says already left out. A new sheet that needs it says its charset; in an
 * existing one that does not, characters beyond ASCII are escaped. `sections`: the heading each rule stands under.
 */
export function writeGatheredSheet(
  target: SiteFile | undefined,
  path: string,
  order: readonly string[],
  pages: readonly PagePlan[],
  place: SheetPlace = 'end',
  sections?: ReadonlyMap<string, string>,
): SheetChange {
  const there = target ? unitsOfSheet(target) : new Set<string>();
  const lineEnd = target
    ? lineEndOf(target.text!)
    : pages.every(({ page }) => page.text.includes('\r\n'))
      ? '\r\n'
      : '\n';
  const parts = printUnits(
    order.filter((key) => !there.has(key)),
    pages,
    lineEnd,
    sections,
  );
  if (parts === '') return { kind: 'none' };
  if (!target) {
    const needsCharset = /[^\0-\x7f]/.test(parts);
    return { kind: 'created', text: needsCharset ? `@charset "utf-8";${lineEnd}${lineEnd}${parts}` : parts };
  }
  const declared = byteOrderMark(target.bytes) ?? declaredCharset(target.bytes);
  const text = declared === 'utf-8' ? parts : asciiText(parts);
  const at = place === 'end' ? undefined : offsetOf(target, place);
  if (at !== undefined)
    return {
      kind: 'edited',
      edits: { path, hash: target.hash, edits: [{ span: { start: at, end: at }, text: text + lineEnd }] },
    };
  const end = target.text!.length;
  const gap = trimmed(target.text!) === '' ? '' : /(\r\n|\n|\r)$/.test(target.text!) ? lineEnd : lineEnd + lineEnd;
  const open = unclosedEnd(target.text!);
  return {
    kind: 'edited',
    edits: { path, hash: target.hash, edits: [{ span: { start: end, end }, text: open + gap + text }] },
  };
}

/** Whether the sheet has a rule of that family. */
export const hasPlace = (target: SiteFile, place: SheetPlace): boolean =>
  typeof place === 'string' || unitOf(target, place.before) !== undefined;

const unitOf = (target: SiteFile, family: string): BlockUnit | undefined =>
  blockUnitsOf(parseSheet(target.text!), siteBase(target.path)).find((unit) => unit.family === family);

/** Before a rule, with the comment on it; a rule in a group is not parted from the group. Undefined in a sheet without rules. */
function offsetOf(target: SiteFile, place: Exclude<SheetPlace, 'end'>): number | undefined {
  const text = target.text!;
  const { rules, comments } = parseSheet(text);
  const unit = place === 'start' ? undefined : unitOf(target, place.before);
  const index = unit
    ? rules.findIndex(({ span }) => span.start <= unit.span.start && unit.span.end <= span.end)
    : rules.findIndex(({ kind }) => kind !== 'import' && kind !== 'statement');
  if (index < 0) return undefined;
  const previous = rules[index - 1]?.span.end ?? 0;
  let { start } = rules[index]!.span;
  for (const comment of comments.filter((one) => one.start >= previous && one.end <= start).reverse()) {
    // a blank line parts a comment on the sheet from one on the rule
    if (/\n[ \t\r]*\n/.test(text.slice(comment.end, start))) break;
    ({ start } = comment);
  }
  return start;
}

/** A sheet that ends inside a block or comment would swallow what follows. */
function unclosedEnd(text: string): string {
  const last = parseSheet(text).rules.at(-1);
  if (!last || !('closed' in last) || last.closed) return '';
  return closingText(textOf(text, last.span)) ?? '';
}
