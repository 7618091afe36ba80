import { trimmed } from '../../source/space.ts';
import { dropProblems } from './dropDeclaration.ts';
import { closed, fields, onPages, operationType } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import { parseDeclarations } from '../../sheet/parseSheet.ts';
import { attributeOf } from '../../page/nodes.ts';
import { elementAt, elementPath } from '../../page/parsePage.ts';
import type { FileEdits } from '../../source/changeSet.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import { wholeLines } from '../../source/removal.ts';
import type { Site } from '../../source/site.ts';
import { openPage } from '../../survey/openPage.ts';
import { comparableValue } from '../../values/comparableValue.ts';
import { chosenPages } from '../links/linkedPages.ts';
import { attributeEdit, type DropPlan, type DropProblem } from './dropDeclaration.ts';

/** Takes an embedded block out of its page, and out of other pages that have the same text in a block. */
export interface DropBlock {
  readonly kind: 'drop-block';
  readonly page: string;
  /** The number of the block among the page's links and blocks, from 0. */
  readonly source: number;
  /** The pages it goes from; only its own when absent. */
  readonly pages?: readonly string[];
}

/** Takes an element's style attribute away, and the same attribute from other elements of chosen pages. */
export interface DropAttribute {
  readonly kind: 'drop-attribute';
  readonly page: string;
  readonly element: string;
  /** Pages on which all elements with an equal attribute lose it; only the element itself when absent. */
  readonly pages?: readonly string[];
}

export function planDropBlock(site: Site, { page, source, pages }: DropBlock): Result<DropPlan, DropProblem> {
  const model = site.files.get(page)?.kind === 'page' ? openPage(site.files.get(page)!) : undefined;
  if (!model) return fail({ kind: 'page-not-found', page });
  const block = model.sources.sheets[source];
  if (block?.kind !== 'embedded' || block.span.start < 0)
    return fail({ kind: 'not-said-there', what: `block ${source + 1} of ${page}` });
  const said = trimmed(model.text.slice(block.contents.start, block.contents.end));
  const opened = chosenPages(site, pages ?? [page]);
  if (!opened.ok) return opened;
  const edited: FileEdits[] = [];
  let places = 0;
  for (const one of opened.value) {
    const same = one.sources.sheets.filter(
      (s, i) =>
        s.kind === 'embedded' &&
        s.span.start >= 0 &&
        (pages === undefined ? i === source : trimmed(one.text.slice(s.contents.start, s.contents.end)) === said),
    );
    places += same.length;
    const edits = same.map((s) => ({ span: wholeLines(one.text, s.span), text: '' }));
    if (edits.length > 0) edited.push({ path: one.path, hash: one.file.hash, edits });
  }
  return planned(edited, places, `block ${source + 1} of ${page}`);
}

export function planDropAttribute(site: Site, { page, element, pages }: DropAttribute): Result<DropPlan, DropProblem> {
  const model = site.files.get(page)?.kind === 'page' ? openPage(site.files.get(page)!) : undefined;
  if (!model) return fail({ kind: 'page-not-found', page });
  const own = elementAt(model.tree, element);
  const value = own && attributeOf(own, 'style');
  if (value === undefined) return fail({ kind: 'not-said-there', what: `a style attribute of ${element} on ${page}` });
  const key = keyOf(value);
  const opened = chosenPages(site, pages ?? [page]);
  if (!opened.ok) return opened;
  const edited: FileEdits[] = [];
  let places = 0;
  for (const one of opened.value) {
    const edits = one.tree.elements.flatMap((candidate) => {
      const theirs = attributeOf(candidate, 'style');
      const goes =
        pages === undefined ? elementPath(candidate) === element : theirs !== undefined && keyOf(theirs) === key;
      return goes ? attributeEdit(one, candidate, () => true) : [];
    });
    places += edits.length;
    if (edits.length > 0) edited.push({ path: one.path, hash: one.file.hash, edits });
  }
  return planned(edited, places, `style="${value}"`);
}

const keyOf = (value: string): string =>
  parseDeclarations(value)
    .map((d) => `${d.property}:${comparableValue(d.property, d.value)}${d.important ? '!' : ''}`)
    .join(';');

function planned(edited: readonly FileEdits[], places: number, what: string): Result<DropPlan, DropProblem> {
  if (edited.length === 0) return fail({ kind: 'not-said-there', what });
  return succeed({ changes: { created: [], edited, deleted: [] }, pages: edited.map((e) => e.path), places });
}

export const dropBlock = operationType<DropBlock, DropProblem>()({
  kind: 'drop-block',
  schema: Type.Object(
    {
      kind: Type.Literal('drop-block'),
      page: Type.String(),
      source: Type.Integer({ minimum: 0 }),
      pages: fields.somePages,
    },
    closed,
  ),
  plan(site, operation) {
    const plan = planDropBlock(site, operation);
    if (!plan.ok) return plan;
    const { changes, pages } = plan.value;
    const sentence = `Drop an embedded block from ${onPages(pages)}`;
    return succeed({ changes, sentence });
  },
  problems: dropProblems,
});

export const dropAttribute = operationType<DropAttribute, DropProblem>()({
  kind: 'drop-attribute',
  schema: Type.Object(
    {
      kind: Type.Literal('drop-attribute'),
      page: Type.String(),
      element: Type.String({ maxLength: 5000 }),
      pages: fields.somePages,
    },
    closed,
  ),
  plan(site, operation) {
    const plan = planDropAttribute(site, operation);
    if (!plan.ok) return plan;
    const { changes, pages, places } = plan.value;
    const elements = places === 1 ? 'element' : 'elements';
    return succeed({ changes, sentence: `Drop the style attribute of ${places} ${elements} on ${onPages(pages)}` });
  },
  problems: dropProblems,
});
