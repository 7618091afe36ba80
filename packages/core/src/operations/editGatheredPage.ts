import { linksPlainly, styleSources, type StyleSources } from '../page/styleSources.ts';
import type { FileEdits } from '../source/changeSet.ts';
import { relativePath } from '../source/sitePath.ts';
import { textOf, type Edit, type Span } from '../source/span.ts';
import type { BlockUnit, EmbeddedBlock } from '../survey/blockUnits.ts';
import { encodePath } from '../values/urls.ts';
import type { PagePlan } from './gatherPlan.ts';
import { pageSyntax, printLink } from '../page/pageSyntax.ts';
import { indentationAt, wholeLines, wholeLinesAndGap } from '../source/removal.ts';

/**
 * The page without the taken rules, with a link to the sheet where the first block taken from stood. With `after`, the link
 * stands ahead of all blocks that follow the same sources, behind the links to these sheets.
 */
export function editGatheredPage(
  page: PagePlan,
  sheetPath: string,
  keepEmpty: boolean,
  after?: readonly string[],
): { readonly edits: FileEdits; readonly blocksEmptied: number } {
  const { file, text, tree } = page;
  const syntax = pageSyntax(tree);
  const sources = styleSources(tree, file.path);
  const linked = sources.sheets.some((source) => linksPlainly(source, sheetPath));
  const base = sources.base.kind === 'site' ? sources.base.path : file.path;
  const link = printLink(syntax, encodePath(relativePath(base, sheetPath)));
  const place = linked || page.taken.length === 0 ? undefined : linkPlace(page, sources, after);
  const edits: Edit[] = [];
  let blocksEmptied = 0;
  if (place?.kind === 'behind') {
    const { start, end } = place.span;
    edits.push({ span: { start: end, end }, text: syntax.lineEnd + indentationAt(text, start) + link });
  }
  for (const block of page.blocks) {
    const here = place?.kind === 'block' && place.block === block;
    const taken = new Set(page.taken.filter((t) => t.block === block).map((t) => t.unit));
    const touched = taken.size > 0 || page.empty.includes(block);
    const { span } = block.source;
    const emptied = touched && isEmptied(block, taken, text);
    if (emptied) blocksEmptied++;
    if (emptied && !keepEmpty) {
      edits.push(here ? { span, text: link } : { span: wholeLines(text, span), text: '' });
      continue;
    }
    if (here) {
      const indentation = indentationAt(text, span.start);
      edits.push({ span: { start: span.start, end: span.start }, text: link + syntax.lineEnd + indentation });
    }
    if (touched)
      edits.push(...(emptied ? [{ span: block.source.contents, text: '' }] : removeUnits(block, taken, text)));
  }
  return { edits: { path: file.path, hash: file.hash, edits }, blocksEmptied };
}

type LinkPlace =
  { readonly kind: 'block'; readonly block: EmbeddedBlock } | { readonly kind: 'behind'; readonly span: Span };

function linkPlace(page: PagePlan, sources: StyleSources, after: readonly string[] | undefined): LinkPlace {
  const first = page.blocks.find((block) => page.taken.some((one) => one.block === block))!;
  if (after === undefined) return { kind: 'block', block: first };
  const movable = new Map(page.blocks.filter((b) => b.stays === undefined).map((b) => [b.sourceIndex, b]));
  const passable = (index: number): boolean => {
    const source = sources.sheets[index];
    return source !== undefined && (movable.has(index) || after.some((path) => linksPlainly(source, path)));
  };
  let start = first.sourceIndex;
  while (passable(start - 1)) start--;
  let end = first.sourceIndex;
  while (passable(end + 1)) end++;
  for (let i = end; i >= start; i--) if (!movable.has(i)) return { kind: 'behind', span: sources.sheets[i]!.span };
  return { kind: 'block', block: movable.get(start)! };
}

function removeUnits(block: EmbeddedBlock, taken: ReadonlySet<BlockUnit>, text: string): Edit[] {
  const edits: Edit[] = [];
  const emptiedGroups = new Set<BlockUnit['parent']>();
  const parents = new Set([...taken].map((u) => u.parent).filter((p) => p !== undefined));
  for (const parent of parents) {
    const inside = block.units.filter((u) => u.span.start >= parent.span.start && u.span.end <= parent.span.end);
    if (inside.every((u) => taken.has(u)) && parent.declarations.length === 0) emptiedGroups.add(parent);
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
export function isEmptied(block: EmbeddedBlock, taken: ReadonlySet<BlockUnit>, text: string): boolean {
  if (block.units.some((unit) => !taken.has(unit))) return false;
  let rest = textOf(text, block.source.contents);
  const { start } = block.source.contents;
  const spans = [
    ...block.sheet.rules.filter((r) => r.kind !== 'dropped' && r.kind !== 'statement').map((r) => r.span),
    ...block.sheet.comments,
  ];
  for (const span of spans)
    rest = rest.slice(0, span.start - start) + ' '.repeat(span.end - span.start) + rest.slice(span.end - start);
  return /^(\s|<!--|-->|@charset "[^"]*";)*$/.test(rest);
}
