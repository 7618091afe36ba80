import { Type } from '@sinclair/typebox';
import { attributeOf, type ElementNode } from '../../page/nodes.ts';
import { elementAt } from '../../page/parsePage.ts';
import { offsetInAttribute } from '../../page/attributeText.ts';
import { matchesSelectors } from '../../selectors/matchesSelectors.ts';
import { parseSelectorList } from '../../selectors/parseSelector.ts';
import type { FileEdits } from '../../source/changeSet.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';
import type { Edit } from '../../source/span.ts';
import type { OpenPage } from '../../survey/openPage.ts';
import { chosenPages, pagesProblems, type PagesProblem } from '../links/linkedPages.ts';
import { closed, fields, onPages, operationType, type OperationPlan } from '../operationType.ts';
import { addClass, dropAttribute } from '../pages/editClass.ts';
import { isPlainName } from './nameEdits.ts';

/** Gives elements a class, or takes one from them: those a selector reaches, and those picked on a page. */
export interface GiveClass {
  readonly kind: 'give-class';
  readonly name: string;
  /** Takes it away instead. */
  readonly take?: boolean;
  readonly selector?: string;
  /** Pages for the selector; all when absent. */
  readonly pages?: readonly string[];
  /** By their path: `html>body:nth-child(2)>p:nth-child(1)`. */
  readonly elements?: readonly { readonly page: string; readonly element: string }[];
}

export type GiveClassProblem =
  | PagesProblem
  | { readonly kind: 'class-not-legal'; readonly name: string }
  | { readonly kind: 'selector-unread'; readonly selector: string }
  | { readonly kind: 'element-not-there'; readonly page: string; readonly element: string }
  | { readonly kind: 'nobody-chosen'; readonly name: string; readonly take: boolean };

export function planGiveClass(site: Site, operation: GiveClass): Result<OperationPlan, GiveClassProblem> {
  const { name, take = false, selector, elements = [] } = operation;
  if (!take && !isPlainName(name, 'class')) return fail({ kind: 'class-not-legal', name });
  if (selector !== undefined && !parseSelectorList(selector)) return fail({ kind: 'selector-unread', selector });
  const only =
    selector === undefined
      ? [...new Set(elements.map(({ page }) => page))]
      : operation.pages && [...new Set([...operation.pages, ...elements.map(({ page }) => page)])];
  const pages = chosenPages(site, only);
  if (!pages.ok) return pages;
  const inScope = operation.pages && new Set(operation.pages);
  const edited: FileEdits[] = [];
  let count = 0;
  for (const page of pages.value) {
    const chosen = new Set<ElementNode>();
    for (const { page: path, element } of elements) {
      if (path !== page.path) continue;
      const found = elementAt(page.tree, element);
      if (!found) return fail({ kind: 'element-not-there', page: path, element });
      chosen.add(found);
    }
    if (selector !== undefined && (inScope?.has(page.path) ?? true))
      for (const found of matchesSelectors(page.tree.elements, selector, page.tree.mode === 'quirks') ?? [])
        chosen.add(found);
    const edits = [...chosen].flatMap((element) => editsFor(page, element, name, take));
    count += edits.length;
    if (edits.length > 0) edited.push({ path: page.path, hash: page.file.hash, edits });
  }
  if (count === 0) return fail({ kind: 'nobody-chosen', name, take });
  const elementsSaid = count === 1 ? 'an element' : `${count} elements`;
  const where = onPages(edited.map(({ path }) => path));
  const sentence = take
    ? `Take the class ${name} from ${elementsSaid} on ${where}`
    : `Give ${elementsSaid} on ${where} the class ${name}`;
  return succeed({ changes: { created: [], edited, deleted: [] }, sentence });
}

function editsFor(page: OpenPage, element: ElementNode, name: string, take: boolean): readonly Edit[] {
  // an element without a tag in the text cannot have a class
  if (element.start < 0) return [];
  const has = element.classes.includes(name);
  if (!take) return has ? [] : [addClass(page.text, element, name)];
  const spans = element.attributeSpans;
  const place = spans?.['class'];
  if (!has || !place) return [];
  const value = attributeOf(element, 'class') ?? '';
  if (element.classes.every((one) => one === name)) return [dropAttribute(page.text, spans, 'class')];
  const written = page.text.slice(place.startOffset, place.endOffset);
  const at = (offset: number): number => place.startOffset + offsetInAttribute(written, offset);
  return [...value.matchAll(/[^\t\n\f\r ]+/g)]
    .filter((found) => found[0] === name)
    .map((found): Edit => {
      const end = found.index + name.length;
      // with the white space before it, or behind it where it comes first
      const before = /[\t\n\f\r ]*$/.exec(value.slice(0, found.index))![0].length;
      const after = found.index - before === 0 ? /^[\t\n\f\r ]*/.exec(value.slice(end))![0].length : 0;
      return { span: { start: at(found.index - before), end: at(end + after) }, text: '' };
    });
}

export const giveClass = operationType<GiveClass, GiveClassProblem>()({
  kind: 'give-class',
  schema: Type.Object(
    {
      kind: Type.Literal('give-class'),
      name: Type.String({ minLength: 1, maxLength: 400 }),
      take: Type.Optional(Type.Boolean()),
      selector: Type.Optional(Type.String({ minLength: 1, maxLength: 20_000 })),
      pages: fields.somePages,
      elements: Type.Optional(
        Type.Array(
          Type.Object({ page: Type.String({ maxLength: 2000 }), element: Type.String({ maxLength: 5000 }) }, closed),
          { maxItems: 10_000 },
        ),
      ),
    },
    closed,
  ),
  plan: planGiveClass,
  problems: {
    ...pagesProblems,
    'class-not-legal': ({ name }) =>
      /\s/.test(name)
        ? `“${name}” holds a space, and a space parts names: it would be several classes. Give one at a time.`
        : `${name} cannot be a class here: letters, digits, hyphens and underscores are allowed, a letter first.`,
    'selector-unread': ({ selector }) =>
      `Browsers cannot read the selector ${selector}. Write it like .notice, nav a or #form p.`,
    'element-not-there': ({ page, element }) => `${page} has no element ${element} any more. Pick it again.`,
    'nobody-chosen': ({ name, take }) =>
      take ? `None of these elements has the class ${name}.` : `No element is chosen that lacks the class ${name}.`,
  },
  choosesLook: true,
});
