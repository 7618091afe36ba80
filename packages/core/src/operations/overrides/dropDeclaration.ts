import { trimmedEnd } from '../../source/space.ts';
import { closed, fields, onPages, operationType } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import { pagesProblems } from '../links/linkedPages.ts';
import type { ProblemSentences } from '../operationType.ts';
import type { OpenPage } from '../../survey/openPage.ts';
import { attributeOf, type ElementNode } from '../../page/nodes.ts';
import { parseDeclarations } from '../../sheet/parseSheet.ts';
import type { Declaration } from '../../sheet/sheet.ts';
import { offsetInAttribute } from '../../page/attributeText.ts';
import type { ChangeSet, FileEdits } from '../../source/changeSet.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import { wholeLines } from '../../source/removal.ts';
import type { Site } from '../../source/site.ts';
import type { Edit } from '../../source/span.ts';
import { comparableValue } from '../../values/comparableValue.ts';
import { dropAttribute } from '../pages/editClass.ts';
import { chosenPages, type PagesProblem } from '../links/linkedPages.ts';
import { declarationSpan, dropFromRule, styleRules } from './dropEdits.ts';

/** A declaration as it stands in pages: in the rules of embedded blocks with these selectors, or in style attributes. */
export interface LocalDeclaration {
  readonly where: 'block' | 'attribute';
  /** The rule's selectors as written; not asked for style attributes. */
  readonly selector?: string;
  readonly property: string;
  readonly value: string;
  readonly important?: boolean;
}

/** Takes a declaration out of pages, wherever its block or style attributes say it; what is empty then goes as well. */
export interface DropDeclaration extends LocalDeclaration {
  readonly kind: 'drop-declaration';
  /** All pages when absent. */
  readonly pages?: readonly string[];
}

export type DropProblem = PagesProblem | { readonly kind: 'not-said-there'; readonly what: string };

/** As data; of `pages` each operation says what absent ones mean. */
export const localDeclarationFields = {
  where: Type.Union([Type.Literal('block'), Type.Literal('attribute')]),
  selector: Type.Optional(Type.String({ maxLength: 20_000 })),
  property: Type.String({ minLength: 1, maxLength: 400 }),
  value: Type.String({ maxLength: 100_000 }),
  important: Type.Optional(Type.Boolean()),
};

export const dropProblems: ProblemSentences<DropProblem> = {
  ...pagesProblems,
  'not-said-there': ({ what }) => `These pages do not hold ${what}. It was dropped already, or the pages changed.`,
};

export interface DropPlan {
  readonly changes: ChangeSet;
  readonly pages: readonly string[];
  /** Places it was taken from. */
  readonly places: number;
}

export function planDropDeclaration(site: Site, operation: DropDeclaration): Result<DropPlan, DropProblem> {
  const opened = chosenPages(site, operation.pages);
  if (!opened.ok) return opened;
  const edited: FileEdits[] = [];
  let places = 0;
  for (const page of opened.value) {
    const found = operation.where === 'block' ? blockEdits(page, operation) : attributeEdits(page, operation);
    places += found.places;
    if (found.edits.length > 0) edited.push({ path: page.path, hash: page.file.hash, edits: found.edits });
  }
  if (edited.length === 0) return fail({ kind: 'not-said-there', what: printed(operation) });
  return succeed({ changes: { created: [], edited, deleted: [] }, pages: edited.map((e) => e.path), places });
}

export const printed = ({ where, selector, property, value }: LocalDeclaration): string =>
  where === 'attribute' ? `style="${property}: ${value}"` : `${selector ?? ''} { ${property}: ${value} }`;

/** The same by meaning: `#0B5563` is `#0b5563`. */
export function isIt(one: Declaration, wanted: LocalDeclaration): boolean {
  if (one.property !== wanted.property || one.important !== (wanted.important ?? false)) return false;
  return comparableValue(one.property, one.value) === comparableValue(wanted.property, wanted.value);
}

interface Found {
  readonly edits: readonly Edit[];
  readonly places: number;
}

function blockEdits(page: OpenPage, wanted: LocalDeclaration): Found {
  const edits: Edit[] = [];
  let places = 0;
  for (const block of page.blocks) {
    if (block.source.foreign || block.source.span.start < 0) continue;
    const own: Edit[] = [];
    let emptied = 0;
    for (const rule of styleRules(block.sheet.rules)) {
      if (rule.selector !== wanted.selector) continue;
      const gone = new Set(rule.declarations.filter((one) => isIt(one, wanted)));
      places += gone.size;
      const cuts = dropFromRule(page.text, rule, gone, block.source.contents);
      if (cuts.length > 0 && gone.size === rule.declarations.length && rule.nested.length === 0 && rule.closed)
        emptied++;
      own.push(...cuts);
    }
    const empty = own.length > 0 && emptied === block.sheet.rules.length && block.sheet.comments.length === 0;
    if (empty) edits.push({ span: wholeLines(page.text, block.source.span), text: '' });
    else edits.push(...own);
  }
  return { edits, places };
}

function attributeEdits(page: OpenPage, wanted: LocalDeclaration): Found {
  const edits = page.tree.elements.flatMap((element) => attributeEdit(page, element, (one) => isIt(one, wanted)));
  return { edits, places: edits.length };
}

/** Takes the declarations out of an element's style attribute, and the attribute when it then says nothing. */
export function attributeEdit(
  page: OpenPage,
  element: ElementNode,
  isGone: (one: Declaration) => boolean,
): readonly Edit[] {
  const value = attributeOf(element, 'style');
  const spans = element.attributeSpans;
  if (value === undefined || !spans?.['style']) return [];
  const all = parseDeclarations(value);
  const gone = all.filter(isGone);
  if (gone.length === 0) return [];
  if (gone.length === all.length) return [dropAttribute(page.text, spans, 'style')];
  const { startOffset, endOffset } = spans['style'];
  const written = page.text.slice(startOffset, endOffset);
  return gone.map((one) => {
    const cut = declarationSpan(value, one.span);
    // a last declaration takes the semicolon and the space before it along
    const before =
      cut.end >= trimmedEnd(value).length ? /;?[\t\n\f\r ]*$/.exec(value.slice(0, cut.start))![0].length : 0;
    const start = startOffset + offsetInAttribute(written, cut.start - before);
    const end = startOffset + offsetInAttribute(written, cut.end);
    return { span: { start, end }, text: '' };
  });
}

export const dropDeclaration = operationType<DropDeclaration, DropProblem>()({
  kind: 'drop-declaration',
  schema: Type.Object(
    { kind: Type.Literal('drop-declaration'), ...localDeclarationFields, pages: fields.somePages },
    closed,
  ),
  plan(site, operation) {
    const plan = planDropDeclaration(site, operation);
    if (!plan.ok) return plan;
    const { changes, pages } = plan.value;
    const sentence = `Drop ${printed(operation)} from ${onPages(pages)}`;
    return succeed({ changes, sentence });
  },
  problems: dropProblems,
});
