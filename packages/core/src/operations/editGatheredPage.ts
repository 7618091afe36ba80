import { styleSources } from '../page/styleSources.ts';
import type { FileEdits } from '../source/changeSet.ts';
import { relativePath } from '../source/sitePath.ts';
import { textOf, type Edit } from '../source/span.ts';
import type { BlockUnit, EmbeddedBlock } from '../survey/blockUnits.ts';
import { encodePath } from '../values/urls.ts';
import type { PagePlan } from './gatherPlan.ts';
import { pageSyntax, printLink } from '../page/pageSyntax.ts';
import { indentationAt, wholeLines, wholeLinesAndGap } from '../source/removal.ts';

/** The page without the taken rules, with a link to the sheet where the first block stood. */
export function editGatheredPage(
  page: PagePlan,
  sheetPath: string,
  keepEmpty: boolean,
): { readonly edits: FileEdits; readonly blocksEmptied: number } {
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
        edits.push({
          span: { start: span.start, end: span.start },
          text: pending + pageSyntax(tree).lineEnd + indentation,
        });
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
    return s.target.kind === 'site' && s.target.path === sheetPath;
  });
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
