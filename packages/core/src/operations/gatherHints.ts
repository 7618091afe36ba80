import { readingOf } from '../survey/pageReading.ts';
import { compileBlock } from '../cascade/compileBlock.ts';
import { hintsOf } from '../cascade/hints.ts';
import type { ElementNode } from '../page/nodes.ts';
import { elementPath } from '../page/parsePage.ts';
import { presentationalParts, replaceableHints } from '../page/presentational.ts';
import { parseDeclarations } from '../sheet/parseSheet.ts';
import type { ChangeSet } from '../source/changeSet.ts';
import { fail, succeed, type Result } from '../source/result.ts';
import { pagesOf, type Site, type SiteFile } from '../source/site.ts';
import type { Edit } from '../source/span.ts';
import { insertLink } from '../survey/insertLink.ts';
import { openPage, type OpenPage } from '../survey/openPage.ts';
import { orderFreeKey } from '../survey/versionKey.ts';
import { proposeClassName } from './className.ts';
import { attributesToClass } from './editClass.ts';
import { asciiText, rebasedText } from './printRule.ts';
import { ruleStyleOf } from './ruleStyle.ts';
import { describeSheetPathProblem, parseSheetPath, type SheetPathProblem } from './sheetPath.ts';
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
  readonly groups: readonly { readonly key: string; readonly name: string; readonly elements: number; readonly pages: readonly string[] }[]; // prettier-ignore
  readonly places: readonly { readonly page: string; readonly key: string; readonly element: string }[];
}

interface Found {
  readonly file: SiteFile;
  readonly tag: string;
  readonly element: string;
  readonly names: readonly string[];
  readonly spans: NonNullable<ElementNode['attributeSpans']>;
}

export function planGatherHints(site: Site, operation: GatherHints): Result<HintsPlan, HintsProblem> {
  const path = parseSheetPath(operation.sheet, site);
  if (!path.ok) return fail({ kind: 'hints-sheet-path', path: path.problem });
  if (site.files.has(path.value)) return fail({ kind: 'hints-sheet-taken', path: path.value });
  const wanted = operation.pages && new Set(operation.pages);
  const excepted = new Set(operation.except?.map(({ key, page }) => `${page}\n${key}`));
  const groups = new Map<string, { readonly css: string; readonly found: Found[] }>();
  const links = new Map<SiteFile, Edit>();
  for (const file of pagesOf(site)) {
    if (wanted && !wanted.has(file.path)) continue;
    const page = openPage(file);
    if (!page) continue;
    for (const element of page.tree.elements) {
      const says = replaceableOf(page, element, path.value);
      if (!says || excepted.has(`${file.path}\n${says.key}`)) continue;
      const link = links.get(file) ?? insertLink(readingOf(file, page.tree)!, path.value, 'first');
      if (!link) break;
      links.set(file, link);
      let group = groups.get(says.key);
      if (!group) groups.set(says.key, (group = { css: says.css, found: [] }));
      const { tag, attributeSpans } = element;
      group.found.push({ file, tag, element: elementPath(element), names: says.names, spans: attributeSpans! });
    }
  }
  if (groups.size === 0) return fail({ kind: 'no-hints' });
  return succeed(write(site, path.value, groups, links));
}

/** What the attributes of an element say that a rule can say instead; undefined when there is nothing. */
function replaceableOf(
  page: OpenPage,
  element: ElementNode,
  sheet: string,
): { readonly key: string; readonly css: string; readonly names: readonly string[] } | undefined {
  if (!element.attributeSpans || element.namespace !== 'html') return undefined;
  const parts = presentationalParts(element).filter((name) => replaceableHints.has(name) && element.attributeSpans![name]); // prettier-ignore
  if (parts.length === 0) return undefined;
  const own = hintsOf(element).filter(({ of }) => of === element);
  const names: string[] = [];
  const lines: string[] = [];
  for (const name of parts) {
    const hints = own.filter((hint) => hint.attribute === name);
    if (hints.length === 0 || hints.some(({ value, property }) => value.startsWith('-webkit-') && property !== 'text-align')) continue; // prettier-ignore
    names.push(name);
    for (const { property, value } of hints) {
      // the standard's word for browsers that do not know the other, which also centres blocks
      if (value.startsWith('-webkit-')) lines.push(`${property}: ${value.slice('-webkit-'.length)};`);
      lines.push(`${property}: ${value};`);
    }
  }
  const css = rebasedText(lines.join(' '), page.sources.base, sheet);
  if (names.length === 0 || css === undefined) return undefined;
  const { declarations } = compileBlock(parseDeclarations(lines.join(' ')), { base: page.sources.base, fingerprint: undefined }); // prettier-ignore
  return { key: orderFreeKey(declarations), css, names };
}

function write(
  site: Site,
  sheet: string,
  groups: ReadonlyMap<string, { readonly css: string; readonly found: readonly Found[] }>,
  links: ReadonlyMap<SiteFile, Edit>,
): HintsPlan {
  const taken = takenClassNames(site);
  const edits = new Map<SiteFile, Edit[]>([...links].map(([file, link]) => [file, [link]]));
  const { oneLine, indent } = ruleStyleOf(site);
  let text = '';
  const named = [...groups].map(([key, { css, found }]) => {
    const declarations = parseDeclarations(css);
    const name = proposeClassName([...new Set(found.map(({ tag }) => tag))], declarations, taken);
    taken.add(name.toLowerCase());
    const parts = declarations.map(({ property, value }) => `${property}: ${value};`);
    text += oneLine
      ? `:where(.${name}) { ${parts.join(' ')} }\n`
      : `:where(.${name}) {\n${parts.map((part) => `${indent}${part}\n`).join('')}}\n`;
    for (const { file, spans, names } of found)
      edits.get(file)!.push(...attributesToClass(file.text!, spans, names, name)!);
    return { key, name, elements: found.length, pages: [...new Set(found.map(({ file }) => file.path))] };
  });
  return {
    changes: {
      created: [{ path: sheet, text: asciiText(text) }],
      edited: [...edits].map(([{ path, hash }, list]) => ({ path, hash, edits: list })),
      deleted: [],
    },
    sheet,
    groups: named,
    places: [...groups].flatMap(([key, { found }]) => found.map(({ file, element }) => ({ page: file.path, key, element }))), // prettier-ignore
  };
}

export function describeHintsProblem(problem: HintsProblem): string {
  switch (problem.kind) {
    case 'hints-sheet-path':
      return describeSheetPathProblem(problem.path);
    case 'hints-sheet-taken':
      return `There is a sheet ${problem.path} already. Rules that count as little as attributes need a sheet of their own, linked first.`;
    case 'no-hints':
      return 'No presentational attribute on these pages can become a rule.';
  }
}
