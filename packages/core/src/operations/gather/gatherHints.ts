import { count } from '../../checks/words.ts';
import { closed, fields, operationType, type ProblemSentences } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import { readingOf } from '../../survey/pageReading.ts';
import { compileBlock } from '../../cascade/compileBlock.ts';
import { hintsOf, ownStyle } from '../../cascade/hints.ts';
import type { ElementNode } from '../../page/nodes.ts';
import { elementPath } from '../../page/parsePage.ts';
import { hasOwnTags, plainElementFor } from '../../page/plainElements.ts';
import { presentationalParts, replaceableHints } from '../../page/presentational.ts';
import { parseDeclarations } from '../../sheet/parseSheet.ts';
import type { Declaration } from '../../sheet/sheet.ts';
import type { ChangeSet } from '../../source/changeSet.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import { pagesOf, type Site, type SiteFile } from '../../source/site.ts';
import type { Edit } from '../../source/span.ts';
import { insertLink } from '../../survey/insertLink.ts';
import { openPage, type OpenPage } from '../../survey/openPage.ts';
import { siteBase } from '../../values/urls.ts';
import { orderFreeKey } from '../../survey/versionKey.ts';
import { proposeClassName } from './className.ts';
import { addClass, attributesToClass, renameTags } from '../pages/editClass.ts';
import { asciiText, rebasedText } from './printRule.ts';
import { ruleStyleOf, type RuleStyle } from './ruleStyle.ts';
import { pageScripts } from '../../scripts/pageScripts.ts';
import { describeSheetPathProblem, parseSheetPath, type SheetPathProblem } from '../sheetPath.ts';
import { takenClassNames } from './takenClassNames.ts';

/**
 * Presentational attributes (`bgcolor`, `align`, `width` on cells, …) become class rules of a new sheet that pages link before all
 * others. The rules count as little as the attributes did: `:where(.name)` has specificity 0.
 *
 * HTML Standard, "Presentational hints": they stand in the author origin before all rules, with specificity 0.
 */
export interface GatherHints {
  readonly kind: 'gather-hints';
  readonly sheet: string;
  readonly pages?: readonly string[];
  /** `center` and `font` elements become `div` and `span` as well. */
  readonly elements?: boolean;
  /** Groups left as they are on a page, by their key. */
  readonly except?: readonly { readonly key: string; readonly page: string }[];
}

export type HintsProblem =
  | { readonly kind: 'hints-sheet-path'; readonly path: SheetPathProblem }
  | { readonly kind: 'hints-sheet-taken'; readonly path: string }
  | { readonly kind: 'no-hints' };

export interface HintsPlan {
  readonly changes: ChangeSet;
  readonly sheet: string;
  readonly groups: readonly {
    readonly key: string;
    readonly name: string;
    readonly elements: number;
    readonly pages: readonly string[];
  }[];
  readonly places: readonly { readonly page: string; readonly key: string; readonly element: string }[];
  readonly left: readonly HintsLeft[];
}

/** An element that stays what it is, or keeps attributes: its path in the page. */
interface HintsLeft {
  readonly page: string;
  readonly element: string;
  readonly reason: ElementStays;
  /** The attributes it keeps. */
  readonly names?: readonly string[];
}

/** Why a `font` or `center` stays: its tags are not its own, or scripts name such elements; or attributes that no rule can say. */
export type ElementStays = 'nesting' | 'script' | 'no-rule-for-it';

export function describeElementStays({ reason, names = [] }: Pick<HintsLeft, 'reason' | 'names'>): string {
  switch (reason) {
    case 'script':
      return 'a script on this page names such elements';
    case 'nesting':
      return 'what stands between its tags is not all in it, or a tag is missing';
    case 'no-rule-for-it':
      return `no rule surely says what ${names.join(', ')} ${names.length === 1 ? 'says' : 'say'}`;
  }
}

/** What an element says by itself that a rule can say instead. */
interface Says {
  /** Equal on elements of a page that stay or go together. */
  readonly key: string;
  /** The rule's declarations; empty where only the tag changes. */
  readonly css: string;
  /** The attributes that go. */
  readonly names: readonly string[];
  /** The tag it gets. */
  readonly tag: string | undefined;
}

interface Found extends Says {
  readonly file: SiteFile;
  readonly element: ElementNode;
  readonly path: string;
}

export function planGatherHints(site: Site, operation: GatherHints): Result<HintsPlan, HintsProblem> {
  const path = parseSheetPath(operation.sheet, site);
  if (!path.ok) return fail({ kind: 'hints-sheet-path', path: path.problem });
  if (site.files.has(path.value)) return fail({ kind: 'hints-sheet-taken', path: path.value });
  const wanted = operation.pages && new Set(operation.pages);
  const excepted = new Set(operation.except?.map(({ key, page }) => `${page}\n${key}`));
  const found: Found[] = [];
  const left: HintsLeft[] = [];
  const links = new Map<SiteFile, Edit>();
  for (const file of pagesOf(site)) {
    if (wanted && !wanted.has(file.path)) continue;
    const page = openPage(file);
    if (!page) continue;
    const named = operation.elements ? namesElements(page, site) : false;
    const told = new Set<number>();
    for (const element of page.tree.elements) {
      const stays = operation.elements ? staysFor(page, element, named) : undefined;
      // a tag that the parser opened again is named once
      if (stays && !told.has(element.start))
        left.push({ page: file.path, element: elementPath(element), reason: stays });
      told.add(element.start);
      const replaces = operation.elements === true && stays === undefined;
      const may = saysOf(page, element, path.value, replaces);
      const says = may.find((one) => !excepted.has(`${file.path}\n${one.key}`));
      const kept = attributesOf(element).filter((name) => !may.some(({ names }) => names.includes(name)));
      if (kept.length > 0)
        left.push({ page: file.path, element: elementPath(element), reason: 'no-rule-for-it', names: kept });
      if (!says) continue;
      if (says.css !== '') {
        const link = links.get(file) ?? insertLink(readingOf(file, page.tree)!, path.value, 'first');
        if (!link) break;
        links.set(file, link);
      }
      found.push({ ...says, file, element, path: elementPath(element) });
    }
  }
  if (found.length === 0) return fail({ kind: 'no-hints' });
  return succeed({ ...write(site, path.value, found, links), left });
}

const attributesOf = (element: ElementNode): readonly string[] =>
  presentationalParts(element).filter((name) => !name.startsWith('<'));

/** Whether a script of the page names elements that could be replaced. */
const namesElements = ({ tree, sources, path }: OpenPage, site: Site): boolean =>
  tree.elements.some((element) => plainElementFor(element) !== undefined) &&
  pageScripts(tree, path, sources, site).some(({ text }) => /\b(font|center)\b/i.test(text));

function staysFor({ tree }: OpenPage, element: ElementNode, named: boolean): ElementStays | undefined {
  if (plainElementFor(element) === undefined) return undefined;
  if (named) return 'script';
  return hasOwnTags(element, tree) ? undefined : 'nesting';
}

/** What can be replaced of an element, the most first: it with its attributes, then the attributes alone. */
function saysOf(page: OpenPage, element: ElementNode, sheet: string, replaces: boolean): readonly Says[] {
  const tag = replaces ? plainElementFor(element) : undefined;
  const whole = tag === undefined ? undefined : replaceableOf(page, element, sheet, tag);
  const attributes = replaceableOf(page, element, sheet, undefined);
  return [whole, attributes].flatMap((one) => one ?? []);
}

function replaceableOf(page: OpenPage, element: ElementNode, sheet: string, tag: string | undefined): Says | undefined {
  if (!element.attributeSpans && tag === undefined) return undefined;
  if (element.namespace !== 'html') return undefined;
  const parts = attributesOf(element).filter((name) => replaceableHints.has(name) && element.attributeSpans?.[name]);
  if (parts.length === 0 && tag === undefined) return undefined;
  const own = hintsOf(element).filter(({ of }) => of === element);
  const names: string[] = [];
  const lines = tag === undefined ? [] : ownStyle(element).flatMap(declarationsOf);
  for (const name of parts) {
    const hints = own.filter((hint) => hint.attribute === name);
    if (
      hints.length === 0 ||
      hints.some(({ value, property }) => value.startsWith('-webkit-') && property !== 'text-align')
    )
      continue;
    names.push(name);
    lines.push(...hints.flatMap(declarationsOf));
  }
  const css = rebasedText(lines.join(' '), page.sources.base, sheet);
  if (css === undefined || (names.length === 0 && tag === undefined)) return undefined;
  const { declarations } = compileBlock(parseDeclarations(css), { base: siteBase(sheet), fingerprint: undefined });
  const key = orderFreeKey(declarations);
  return { key: tag === undefined ? key : `${key} ${element.tag}`, css, names, tag };
}

/** The standard's word first, for browsers that do not know the other, which also centres blocks. */
const declarationsOf = ({
  property,
  value,
}: {
  readonly property: string;
  readonly value: string;
}): readonly string[] =>
  [...(value.startsWith('-webkit-') ? [value.slice('-webkit-'.length)] : []), value].map(
    (one) => `${property}: ${one};`,
  );

function write(
  site: Site,
  sheet: string,
  found: readonly Found[],
  links: ReadonlyMap<SiteFile, Edit>,
): Omit<HintsPlan, 'left'> {
  const taken = takenClassNames(site);
  const edits = new Map(found.map(({ file }): [SiteFile, Edit[]] => [file, [links.get(file) ?? []].flat()]));
  const style = ruleStyleOf(site);
  let text = '';
  const byRule = new Map<string, Found[]>();
  for (const one of found) {
    const rule = one.css === '' ? '' : one.key.replace(/ (font|center)$/, '');
    const list = byRule.get(rule);
    if (list) list.push(one);
    else byRule.set(rule, [one]);
  }
  const groups = [...byRule].map(([key, members]) => {
    const declarations = parseDeclarations(members[0]!.css);
    const kinds = [...new Set(members.map(({ element, tag }) => tag ?? element.tag))];
    const name = declarations.length === 0 ? '' : proposeClassName(kinds, declarations, taken);
    if (name !== '') {
      taken.add(name.toLowerCase());
      text += printRule(name, declarations, style);
    }
    // of a tag that the parser opened again for mis-nested elements there is one to edit
    const tags = new Map(members.map((one) => [`${one.file.path} ${one.element.start}`, one]));
    for (const one of tags.values()) edits.get(one.file)!.push(...editsOf(one, name));
    return { key, name, elements: members.length, pages: [...new Set(members.map(({ file }) => file.path))] };
  });
  return {
    changes: {
      created: text === '' ? [] : [{ path: sheet, text: asciiText(text) }],
      edited: [...edits].map(([{ path, hash }, list]) => ({ path, hash, edits: list })),
      deleted: [],
    },
    sheet,
    groups,
    places: found.map(({ file, key, path }) => ({ page: file.path, key, element: path })),
  };
}

function printRule(name: string, declarations: readonly Declaration[], { oneLine, indent }: RuleStyle): string {
  const parts = declarations.map(({ property, value }) => `${property}: ${value};`);
  return oneLine
    ? `:where(.${name}) { ${parts.join(' ')} }\n`
    : `:where(.${name}) {\n${parts.map((part) => `${indent}${part}\n`).join('')}}\n`;
}

function editsOf({ file, element, names, tag }: Found, name: string): readonly Edit[] {
  const text = file.text!;
  const renamed = tag === undefined ? [] : renameTags(text, element, tag);
  if (name === '') return renamed;
  const classed =
    names.length > 0 ? attributesToClass(text, element.attributeSpans!, names, name)! : [addClass(text, element, name)];
  return [...renamed, ...classed];
}

export const hintsProblems: ProblemSentences<HintsProblem> = {
  'hints-sheet-path': (problem) => describeSheetPathProblem(problem.path),
  'hints-sheet-taken': (problem) =>
    `There is a sheet ${problem.path} already. Rules that count as little as attributes need a sheet of their own, linked first.`,
  'no-hints': () => 'No presentational attribute on these pages can become a rule.',
};

export const gatherHints = operationType<GatherHints, HintsProblem>()({
  kind: 'gather-hints',
  schema: Type.Object(
    {
      kind: Type.Literal('gather-hints'),
      sheet: fields.sheet,
      pages: fields.somePages,
      elements: Type.Optional(Type.Boolean()),
      except: Type.Optional(
        Type.Array(Type.Object({ key: Type.String(), page: Type.String() }, closed), { maxItems: 50_000 }),
      ),
    },
    closed,
  ),
  plan(site, operation) {
    const plan = planGatherHints(site, operation);
    if (!plan.ok) return plan;
    const { changes, groups, sheet } = plan.value;
    const elements = groups.reduce((sum, group) => sum + group.elements, 0);
    const sentence =
      changes.created.length === 0
        ? `Turn ${count(elements, 'font or center element')} into plain ones`
        : `Turn what ${count(elements, 'element')} ${elements === 1 ? 'says' : 'say'} by presentational markup into ${sheet}, a new sheet linked first`;
    return succeed({ changes, sentence });
  },
  problems: hintsProblems,
});
