import { compileBlock } from '../cascade/compileBlock.ts';
import { parsePage } from '../page/parsePage.ts';
import { styleSources } from '../page/styleSources.ts';
import { lineEndOf } from '../source/lineEnds.ts';
import { fail, succeed, type Result } from '../source/result.ts';
import { pagesOf, type Site, type SiteFile } from '../source/site.ts';
import { byteOrderMark } from '../source/pageEncoding.ts';
import { declaredCharset } from '../source/sheetEncoding.ts';
import { relativePath } from '../source/sitePath.ts';
import { textOf, type Edit } from '../source/span.ts';
import type { ChangeSet, FileEdits } from '../source/changeSet.ts';
import { embeddedBlocks, type BlockUnit, type EmbeddedBlock, type StayReason } from '../survey/blockUnits.ts';
import { parseSheet } from '../sheet/parseSheet.ts';
import { encodePath, resolveReference } from '../values/urls.ts';
import { mergeOrder, type Orderable } from './mergeOrder.ts';
import { pageSyntax, printLink } from './pageSyntax.ts';
import { asciiText, closingText, dedented, indented, openGroups, rebasedText } from './printRule.ts';
import { indentationAt, wholeLines, wholeLinesAndGap } from './removal.ts';
import { describeSheetPathProblem, parseSheetPath, type SheetPathProblem } from './sheetPath.ts';
import { unitsOfSheet } from './unitsOfSheet.ts';

/** Take rules out of the embedded blocks of pages into a sheet, and link it where the first block was. */
export interface GatherRules {
  readonly kind: 'gather-rules';
  /** The sheet's path as a person names it; `.css` is added when left out. New or existing. */
  readonly sheet: string;
  /** Pages to take from, by path; all when absent. */
  readonly pages?: readonly string[];
  /** Which rules; all when absent. Without `version`, every version of the family. */
  readonly rules?: readonly RuleChoice[];
  /** Rules to leave where they are, though `rules` names them. */
  readonly except?: readonly RuleChoice[];
  /** Leave emptied `style` elements in the pages. */
  readonly keepEmptyBlocks?: boolean;
}

export interface RuleChoice {
  readonly family: string;
  readonly version?: string;
}

export type GatherProblem =
  | { readonly kind: 'sheet-path'; readonly path: SheetPathProblem }
  | { readonly kind: 'no-such-page'; readonly path: string }
  | { readonly kind: 'sheet-opaque'; readonly path: string }
  | { readonly kind: 'nothing-to-gather' };

/** A rule that was asked for and stays in its page. */
export interface LeftRule {
  readonly page: string;
  readonly label: string;
  readonly family: string;
  readonly reason: StayReason | 'order-conflict';
}

export interface GatherPlan {
  readonly sheet: string;
  readonly changes: ChangeSet;
  /** Rules written to the sheet, in order: families with their versions. */
  readonly moved: readonly Required<RuleChoice>[];
  readonly left: readonly LeftRule[];
  readonly pages: readonly string[];
  readonly blocksEmptied: number;
}

interface PagePlan {
  readonly file: SiteFile;
  readonly text: string;
  readonly tree: ReturnType<typeof parsePage>;
  readonly blocks: readonly EmbeddedBlock[];
  /** Blocks without a single rule: they go when everything is gathered. */
  readonly empty: readonly EmbeddedBlock[];
  readonly taken: { readonly block: EmbeddedBlock; readonly unit: BlockUnit; readonly key: string; readonly text: string }[];
}

/** Plans the operation on a site; writes nothing. */
export function planGatherRules(site: Site, operation: GatherRules): Result<GatherPlan, GatherProblem> {
  const path = parseSheetPath(operation.sheet, site);
  if (!path.ok) return fail({ kind: 'sheet-path', path: path.problem });
  const sheetPath = path.value;
  const target = site.files.get(sheetPath);
  if (target && target.text === undefined) return fail({ kind: 'sheet-opaque', path: sheetPath });
  const missing = operation.pages?.find((page) => site.files.get(page)?.kind !== 'page');
  if (missing !== undefined) return fail({ kind: 'no-such-page', path: missing });
  const left: LeftRule[] = [];
  const pages = takePages(site, operation, sheetPath, left);
  const { order, conflicts } = orderUnits(pages);
  for (const page of pages) dropConflicts(page, conflicts, left);
  const planned = pages.filter((page) => page.taken.length > 0 || page.empty.length > 0);
  if (planned.length === 0) return fail({ kind: 'nothing-to-gather' });
  const kept = order.filter((key) => !conflicts.has(key));
  const sheetChange = writeSheet(target, sheetPath, kept, planned);
  const edited = planned.map((page) => editPage(page, sheetPath, operation.keepEmptyBlocks ?? false));
  const changes: ChangeSet = {
    created: sheetChange.kind === 'created' ? [{ path: sheetPath, text: sheetChange.text }] : [],
    edited: [...(sheetChange.kind === 'edited' ? [sheetChange.edits] : []), ...edited.map((e) => e.edits)],
    deleted: [],
  };
  const units = new Map(planned.flatMap((page) => page.taken).map((t) => [t.key, t.unit]));
  return succeed({
    sheet: sheetPath,
    changes,
    moved: kept.map((key) => ({ family: units.get(key)!.family, version: units.get(key)!.version })),
    left,
    pages: planned.map((page) => page.file.path),
    blocksEmptied: edited.reduce((sum, e) => sum + e.blocksEmptied, 0),
  });
}

function takePages(site: Site, operation: GatherRules, sheetPath: string, left: LeftRule[]): PagePlan[] {
  const wanted = operation.pages && new Set(operation.pages);
  const chosen = chooser(operation.rules);
  const excepted = operation.except === undefined ? () => false : chooser(operation.except);
  const plans: PagePlan[] = [];
  for (const file of pagesOf(site)) {
    if (file.text === undefined || (wanted && !wanted.has(file.path))) continue;
    if (!/<style/i.test(file.text)) continue;
    const tree = parsePage(file.text);
    const blocks = embeddedBlocks(tree, file.path);
    const empty = operation.rules === undefined ? blocks.filter((b) => b.stays === undefined && b.units.length === 0 && isEmptied(b, new Set(), file.text!)) : [];
    const plan: PagePlan = { file, text: file.text, tree, blocks, empty, taken: [] };
    const seen = new Map<string, number>();
    for (const block of blocks)
      for (const unit of block.units) {
        if (!chosen(unit) || excepted(unit)) continue;
        const text = movableText(unit, block, file.text, sheetPath);
        const reason = block.stays ?? (typeof text === 'string' ? undefined : text.reason);
        if (reason !== undefined) {
          left.push({ page: file.path, label: unit.label, family: unit.family, reason });
          continue;
        }
        const plain = `${unit.family}\n${unit.version}`;
        const copies = (seen.get(plain) ?? 0) + 1;
        seen.set(plain, copies);
        plan.taken.push({ block, unit, key: copies === 1 ? plain : `${plain}\n#${copies}`, text: text as string });
      }
    if (plan.taken.length > 0 || empty.length > 0) plans.push(plan);
  }
  return plans;
}

function chooser(choices: readonly RuleChoice[] | undefined): (unit: BlockUnit) => boolean {
  if (choices === undefined) return () => true;
  const families = new Set(choices.filter((c) => c.version === undefined).map((c) => c.family));
  const versions = new Set(choices.filter((c) => c.version !== undefined).map((c) => `${c.family}\n${c.version}`));
  return (unit) => families.has(unit.family) || versions.has(`${unit.family}\n${unit.version}`);
}

function movableText(unit: BlockUnit, block: EmbeddedBlock, pageText: string, sheetPath: string): string | { readonly reason: StayReason } {
  const own = textOf(pageText, unit.span);
  const closing = unit.closed ? '' : closingText(own);
  if (closing === undefined) return { reason: 'unclosed-string' };
  return rebasedText(own + closing, block.base, sheetPath) ?? { reason: 'reference-cannot-move' };
}

function orderUnits(pages: readonly PagePlan[]): { order: readonly string[]; conflicts: ReadonlySet<string> } {
  const rules = new Map<string, Orderable>();
  for (const page of pages)
    for (const { key, unit, block } of page.taken) {
      if (rules.has(key)) continue;
      const { declarations } = compileBlock(unit.declarations, { base: block.base, fingerprint: undefined });
      rules.set(key, { key, kind: unit.kind, label: unit.label, declarations });
    }
  const { order, left } = mergeOrder(rules, pages.map((page) => page.taken.map((t) => t.key)));
  return { order, conflicts: new Set(left) };
}

function dropConflicts(page: PagePlan, conflicts: ReadonlySet<string>, left: LeftRule[]): void {
  if (conflicts.size === 0) return;
  for (let i = page.taken.length - 1; i >= 0; i--) {
    const { key, unit } = page.taken[i]!;
    if (!conflicts.has(key)) continue;
    page.taken.splice(i, 1);
    left.push({ page: page.file.path, label: unit.label, family: unit.family, reason: 'order-conflict' });
  }
}

type SheetChange =
  | { readonly kind: 'created'; readonly text: string }
  | { readonly kind: 'edited'; readonly edits: FileEdits }
  | { readonly kind: 'none' };

function writeSheet(target: SiteFile | undefined, path: string, order: readonly string[], pages: readonly PagePlan[]): SheetChange {
  const there = target ? unitsOfSheet(target) : new Set<string>();
  const lineEnd = target ? lineEndOf(target.text!) : pages[0]!.tree.text.includes('\r\n') && pages.every((p) => p.text.includes('\r\n')) ? '\r\n' : '\n';
  const parts = printUnits(order.filter((key) => !there.has(key)), pages, lineEnd);
  if (parts === '') return { kind: 'none' };
  if (!target) {
    const needsCharset = /[^\0-\x7f]/.test(parts);
    return { kind: 'created', text: needsCharset ? `@charset "utf-8";${lineEnd}${lineEnd}${parts}` : parts };
  }
  const declared = byteOrderMark(target.bytes) ?? declaredCharset(target.bytes);
  const text = declared === 'utf-8' ? parts : asciiText(parts);
  const end = target.text!.length;
  const gap = target.text!.trim() === '' ? '' : /(\r\n|\n|\r)$/.test(target.text!) ? lineEnd : lineEnd + lineEnd;
  const open = unclosedEnd(target.text!);
  return { kind: 'edited', edits: { path, hash: target.hash, edits: [{ span: { start: end, end }, text: open + gap + text }] } };
}

/** A sheet that ends inside a block or comment would swallow what follows. */
function unclosedEnd(text: string): string {
  const last = parseSheet(text).rules.at(-1);
  if (!last || !('closed' in last) || last.closed) return '';
  return closingText(textOf(text, last.span)) ?? '';
}

function printUnits(order: readonly string[], pages: readonly PagePlan[], lineEnd: string): string {
  const firsts = new Map<string, { readonly page: PagePlan; readonly text: string; readonly unit: BlockUnit }>();
  const comments = new Map<string, string[]>();
  for (const page of pages)
    for (const { key, text, unit } of page.taken) {
      if (!firsts.has(key)) firsts.set(key, { page, text, unit });
      const list = comments.get(key) ?? [];
      for (const comment of [...unit.comments, ...trailing(page, unit)]) if (!list.some((c) => sameComment(c, comment))) list.push(comment);
      comments.set(key, list);
    }
  let out = '';
  let groups = '';
  let inner: string[] = [];
  const flush = (): void => {
    for (const _ of inner) out += `}${lineEnd}`;
    inner = [];
  };
  for (const key of order) {
    const { page, text, unit } = firsts.get(key)!;
    const opening = openGroups(unit.groups);
    if (opening.join('\n') !== groups) {
      flush();
      if (out !== '') out += lineEnd;
      opening.forEach((line) => (out += line + lineEnd));
      inner = [...opening];
      groups = opening.join('\n');
    } else if (out !== '' && (comments.get(key)!.length > 0 || hadGap(page.text, unit))) out += lineEnd;
    const lines = [...comments.get(key)!.map((c) => dedented(c, indentationAt(page.text, unit.lead), lineEnd)), dedented(text, indentationAt(page.text, unit.span.start), lineEnd)];
    for (const line of lines) out += indented(line, '  '.repeat(opening.length), lineEnd) + lineEnd;
  }
  flush();
  return out;
}

/** Comments after the last rule of a block go with that rule. */
function trailing(page: PagePlan, unit: BlockUnit): readonly string[] {
  const block = page.blocks.find((b) => b.units.at(-1) === unit);
  return block ? block.trailingComments.map((span) => textOf(page.text, span)) : [];
}

const sameComment = (a: string, b: string): boolean => a.replace(/\s+/g, ' ') === b.replace(/\s+/g, ' ');

/** Whether the author left a blank line before the rule. */
const hadGap = (text: string, unit: BlockUnit): boolean => /(\r\n|\n|\r(?!\n))[ \t]*(\r\n|\n|\r(?!\n))[ \t]*$/.test(text.slice(Math.max(0, unit.lead - 200), unit.lead));

function editPage(page: PagePlan, sheetPath: string, keepEmpty: boolean): { readonly edits: FileEdits; readonly blocksEmptied: number } {
  const { file, text, tree } = page;
  const edits: Edit[] = [];
  let blocksEmptied = 0;
  const linked = linksSheet(tree, file.path, sheetPath);
  const link = linked ? '' : printLink(pageSyntax(tree), encodePath(relativePath(file.path, sheetPath)));
  let pending = page.taken.length === 0 ? '' : link;
  for (const block of page.blocks) {
    const taken = new Set(page.taken.filter((t) => t.block === block).map((t) => t.unit));
    if (taken.size === 0 && !page.empty.includes(block)) continue;
    const { span } = block.source;
    const emptied = isEmptied(block, taken, text);
    if (emptied) blocksEmptied++;
    if (emptied && !keepEmpty) {
      edits.push(pending === '' ? { span: wholeLines(text, span), text: '' } : { span, text: pending });
    } else {
      if (pending !== '') {
        const indentation = indentationAt(text, span.start);
        edits.push({ span: { start: span.start, end: span.start }, text: pending + pageSyntax(tree).lineEnd + indentation });
      }
      edits.push(...(emptied ? [{ span: block.source.contents, text: '' }] : removeUnits(block, taken, text)));
    }
    pending = '';
  }
  return { edits: { path: file.path, hash: file.hash, edits }, blocksEmptied };
}

function linksSheet(tree: PagePlan['tree'], path: string, sheetPath: string): boolean {
  return styleSources(tree, path).sheets.some((s) => {
    if (s.kind !== 'linked' || s.idle !== undefined || s.media.trim() !== '' || s.title !== '') return false;
    const target = resolveReference(s.reference, { kind: 'site', path });
    return s.target.kind === 'site' && s.target.path === sheetPath && target.kind === 'site';
  });
}

/** Nothing is left but white space, comments that go along, and the `<!-- -->` of old pages. */
function isEmptied(block: EmbeddedBlock, taken: ReadonlySet<BlockUnit>, text: string): boolean {
  if (block.units.some((unit) => !taken.has(unit))) return false;
  let rest = textOf(text, block.source.contents);
  const { start } = block.source.contents;
  const spans = [...block.sheet.rules.filter((r) => r.kind !== 'dropped' && r.kind !== 'statement').map((r) => r.span), ...block.sheet.comments];
  for (const span of spans) rest = rest.slice(0, span.start - start) + ' '.repeat(span.end - span.start) + rest.slice(span.end - start);
  return /^(\s|<!--|-->|@charset "[^"]*";)*$/.test(rest);
}

function removeUnits(block: EmbeddedBlock, taken: ReadonlySet<BlockUnit>, text: string): Edit[] {
  const edits: Edit[] = [];
  const emptiedGroups = new Set<BlockUnit['parent']>();
  const parents = new Set([...taken].map((u) => u.parent).filter((p) => p !== undefined));
  for (const parent of parents) {
    const inside = block.units.filter((u) => u.span.start >= parent.span.start && u.span.end <= parent.span.end);
    if (inside.every((u) => taken.has(u)) && parent.declarations.length === 0) emptiedGroups.add(parent);
  }
  for (const parent of emptiedGroups) if (parent) edits.push({ span: wholeLinesAndGap(text, parent.span, block.source.contents), text: '' });
  for (const unit of taken) {
    const covered = [...emptiedGroups].some((g) => g && unit.span.start >= g.span.start && unit.span.end <= g.span.end);
    if (!covered) edits.push({ span: wholeLinesAndGap(text, { start: unit.lead, end: unit.span.end }, block.source.contents), text: '' });
  }
  return withoutOverlaps(edits);
}

/** A blank line claimed by two neighbours goes with the first. */
function withoutOverlaps(edits: Edit[]): Edit[] {
  edits.sort((a, b) => a.span.start - b.span.start);
  let done = -1;
  return edits.flatMap((edit) => {
    if (edit.span.end <= done) return [];
    const start = Math.max(edit.span.start, done);
    done = edit.span.end;
    return [{ span: { start, end: edit.span.end }, text: '' }];
  });
}

export function describeGatherProblem(problem: GatherProblem): string {
  switch (problem.kind) {
    case 'sheet-path':
      return describeSheetPathProblem(problem.path);
    case 'no-such-page':
      return `There is no page ${problem.path} in this site.`;
    case 'sheet-opaque':
      return `${problem.path} does not encode back to its own bytes, so nothing can be added to it. Choose another sheet.`;
    case 'nothing-to-gather':
      return 'None of the chosen pages holds any of the chosen rules in a block that can be moved.';
  }
}
