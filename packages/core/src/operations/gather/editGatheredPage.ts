import { printLink } from '../../page/pageSyntax.ts';
import { linksPlainly } from '../../page/styleSources.ts';
import type { FileEdits } from '../../source/changeSet.ts';
import { indentationAt, wholeLines, wholeLinesAndGap } from '../../source/removal.ts';
import { relativePath } from '../../source/sitePath.ts';
import type { Edit, Span } from '../../source/span.ts';
import type { PageReading, ReadBlock, ReadUnit } from '../../survey/pageReading.ts';
import { shiftedReading } from '../../survey/shiftedReading.ts';
import { encodePath } from '../../values/urls.ts';
import { addedLink } from '../links/addedLink.ts';
import type { PagePlan } from './gatherPlan.ts';
import type { ReadingMakers } from '../readings.ts';

export interface GatheredPage {
  readonly edits: FileEdits;
  readonly blocksEmptied: number;
  readonly reading: ReadingMakers extends ReadonlyMap<string, infer Make> ? Make : never;
}

/**
 * Where a new link goes: ahead of all blocks that follow the same sources, behind links to some sheets; or ahead of the source of
 * that number. Where the first block taken from stood when absent.
 */
export type GatheredLinkPlace = { readonly after: readonly string[] } | { readonly ahead: number };

/** The page without the taken rules, with a link to the sheet. */
export function editGatheredPage(
  plan: PagePlan,
  sheetPath: string,
  keepEmpty: boolean,
  where?: GatheredLinkPlace,
): GatheredPage {
  const { page, empty, taken } = plan;
  const { file, text, syntax } = page;
  const linked = page.sources.some((source) => linksPlainly(source, sheetPath));
  const base = page.base.kind === 'site' ? page.base.path : page.path;
  const link = printLink(syntax, encodePath(relativePath(base, sheetPath)));
  const place = linked || taken.every((one) => one.dead) ? undefined : linkPlace(plan, where);
  const edits: Edit[] = [];
  const gone = new Set<ReadBlock>();
  let linkEdit: Edit | undefined;
  let blocksEmptied = 0;
  if (place?.kind === 'behind') {
    const { start, end } = place.span;
    edits.push((linkEdit = { span: { start: end, end }, text: syntax.lineEnd + indentationAt(text, start) + link }));
  } else if (place?.kind === 'ahead') {
    const { start } = place.span;
    edits.push((linkEdit = { span: { start, end: start }, text: link + syntax.lineEnd + indentationAt(text, start) }));
  }
  for (const block of page.blocks) {
    const here = place?.kind === 'block' && place.block === block;
    const units = new Set(taken.filter((t) => t.block === block).map((t) => t.unit));
    const touched = units.size > 0 || empty.includes(block);
    const { span } = block.source;
    const emptied = touched && isEmptied(block, units);
    if (emptied) blocksEmptied++;
    if (emptied && !keepEmpty) {
      gone.add(block);
      const edit = here ? { span, text: link } : { span: wholeLines(text, span), text: '' };
      edits.push(edit);
      if (here) linkEdit = edit;
      continue;
    }
    if (here) {
      const indentation = indentationAt(text, span.start);
      linkEdit = { span: { start: span.start, end: span.start }, text: link + syntax.lineEnd + indentation };
      edits.push(linkEdit);
    }
    if (touched)
      edits.push(...(emptied ? [{ span: block.source.contents, text: '' }] : removeUnits(block, units, text)));
  }
  const left = new Set(taken.map(({ unit }) => unit));
  const added = linkEdit && addedLink(page, linkEdit, sheetPath);
  return {
    edits: { path: file.path, hash: file.hash, edits },
    blocksEmptied,
    reading: (now) => shiftedReading(page, now, edits, { gone, left, link: added }),
  };
}

type LinkPlace =
  | { readonly kind: 'block'; readonly block: ReadBlock }
  | { readonly kind: 'behind' | 'ahead'; readonly span: Span };

function linkPlace({ page, taken }: PagePlan, where: GatheredLinkPlace | undefined): LinkPlace {
  const { sources } = page;
  if (where && 'ahead' in where) return aheadOf(page, where.ahead);
  const after = where?.after;
  const first = page.blocks.find((block) => taken.some((one) => one.block === block))!;
  if (after === undefined) return { kind: 'block', block: first };
  const movable = new Map(page.blocks.filter((b) => b.stays === undefined).map((b) => [b.sourceIndex, b]));
  const passable = (index: number): boolean => {
    const source = sources[index];
    return source !== undefined && (movable.has(index) || after.some((path) => linksPlainly(source, path)));
  };
  let start = first.sourceIndex;
  while (passable(start - 1)) start--;
  let end = first.sourceIndex;
  while (passable(end + 1)) end++;
  for (let i = end; i >= start; i--) if (!movable.has(i)) return { kind: 'behind', span: sources[i]!.span };
  return { kind: 'block', block: movable.get(start)! };
}

/** Behind the last source where there are not so many. */
function aheadOf({ sources, blocks }: PageReading, number: number): LinkPlace {
  const at = Math.min(number, sources.length);
  const block = blocks.find(({ sourceIndex }) => sourceIndex === at);
  if (block) return { kind: 'block', block };
  return at < sources.length
    ? { kind: 'ahead', span: sources[at]!.span }
    : { kind: 'behind', span: sources[at - 1]!.span };
}

function removeUnits(block: ReadBlock, taken: ReadonlySet<ReadUnit>, text: string): Edit[] {
  const edits: Edit[] = [];
  const emptiedGroups = new Set<ReadUnit['parent']>();
  const parents = new Set([...taken].map((u) => u.parent).filter((p) => p !== undefined));
  for (const parent of parents) {
    const inside = block.units.filter((u) => u.span.start >= parent.span.start && u.span.end <= parent.span.end);
    if (inside.every((u) => taken.has(u)) && parent.bare) emptiedGroups.add(parent);
  }
  for (const parent of emptiedGroups)
    if (parent) edits.push({ span: wholeLinesAndGap(text, parent.span, block.source.contents), text: '' });
  for (const unit of taken) {
    const covered = [...emptiedGroups].some((g) => g && unit.span.start >= g.span.start && unit.span.end <= g.span.end);
    if (!covered)
      edits.push({
        span: wholeLinesAndGap(text, { start: unit.lead, end: unit.span.end }, block.source.contents),
        text: '',
      });
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

/** Nothing is left but white space, comments that go along, and the `<!-- -->` of old pages. */
const isEmptied = (block: ReadBlock, taken: ReadonlySet<ReadUnit>): boolean =>
  block.bare && block.units.every((unit) => taken.has(unit));
