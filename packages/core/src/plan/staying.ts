import { describeAttributeStays, type AttributeStays } from '../operations/gather/attributeStays.ts';
import { attributeOf } from '../page/nodes.ts';
import { elementAt, elementPath, textContent } from '../page/parsePage.ts';
import { pagesOf, type Site } from '../source/site.ts';
import { isTakenAsNothing } from '../values/takenAsNothing.ts';
import { describeStayReason, type StayReason } from '../survey/blockUnits.ts';
import { openPage, type OpenPage } from '../survey/openPage.ts';
import type { AttributesPlan } from '../operations/gather/gatherAttributes.ts';
import { describeElementStays, type HintsPlan } from '../operations/gather/gatherHints.ts';
import type { PlanOptions } from './planOptions.ts';
import type { Stayed } from './takeBack.ts';

/** Why something stays in a page, for programs. */
export type StayingCode =
  | StayReason
  | AttributeStays
  | 'looks-different'
  | 'shown-elsewhere'
  | 'unread-sheet'
  | 'no-rule'
  | 'no-rule-for-it'
  | 'max-sheets'
  | 'single-page'
  | 'nesting'
  | 'in-noscript'
  | 'in-template'
  | 'in-comment';

/** A block, a style attribute or presentational attributes that stay in their page. */
export interface Staying {
  readonly page: string;
  readonly line: number;
  readonly kind: 'block' | 'attribute' | 'presentational';
  readonly code: StayingCode;
  readonly reason: string;
}

/** All that stays in the pages of a site, as far as the site alone tells. */
export const whatStays = (site: Site): readonly Staying[] => [
  ...blocksStaying(site, {}, new Map()),
  ...attributesStaying(site, undefined, [], []),
];

/** The embedded blocks still in pages. `excluded`: pages whose look would have changed, with how. */
export function blocksStaying(
  site: Site,
  options: PlanOptions,
  excluded: ReadonlyMap<string, string>,
): readonly Staying[] {
  return chosenPages(site, options.pages).flatMap((page) => {
    const at = (offset: number): number => page.lines.placeOf(Math.max(offset, 0)).line;
    const block = (offset: number, code: StayingCode, reason: string): Staying => ({
      page: page.path,
      line: at(offset),
      kind: 'block',
      code,
      reason,
    });
    const blocks = page.blocks.map(({ stays, units, source }) => {
      const { start } = source.span;
      if (stays !== undefined) return block(start, stays, describeStayReason(stays));
      const reason = excluded.get(page.path);
      if (reason !== undefined) return block(start, 'looks-different', reason);
      if (units.length === 0) return block(start, 'no-rule', 'it holds no rule');
      if (options.maxSheets !== undefined)
        return block(start, 'max-sheets', `it would need more than ${options.maxSheets} sheets`);
      if (options.singlePage === 'stay') return block(start, 'single-page', 'no other page has these rules');
      return block(start, 'looks-different', 'it could not be moved with the same look');
    });
    return [...blocks, ...hiddenBlocks(page).map(({ offset, code, reason }) => block(offset, code, reason))];
  });
}

/** Blocks that are no part of the document: left, and named. */
function hiddenBlocks({ tree, text }: OpenPage): readonly { offset: number; code: StayingCode; reason: string }[] {
  const inside = tree.elements.flatMap((element): { offset: number; code: StayingCode; reason: string }[] => {
    if (element.tag === 'noscript' && /<style/i.test(textContent(element)))
      return [
        {
          offset: element.start,
          code: 'in-noscript',
          reason: 'it stands in a noscript element, for browsers without scripts',
        },
      ];
    if (element.tag === 'template' && element.start >= 0 && /<style/i.test(text.slice(element.start, element.end)))
      return [{ offset: element.start, code: 'in-template', reason: 'it stands in a template, which scripts copy' }];
    return [];
  });
  const comments = [...text.matchAll(/<!--(?:(?!-->)[^])*?<style\b[^>]*>(?:(?!-->)[^])*-->/gi)];
  // `<style><!-- … -->` is a block, not a comment
  const outside = comments.filter(
    (found) =>
      !tree.elements.some((e) => e.start <= found.index && found.index < e.end && /^(style|script)$/.test(e.tag)),
  );
  return [
    ...inside,
    ...outside.map((found) => ({
      offset: found.index,
      code: 'in-comment' as const,
      reason: 'it stands in a comment, so browsers take no rules from it',
    })),
  ];
}

/** The style attributes still on elements. `left`: what the plan could not take; `stayed`: what the proof took back. */
export function attributesStaying(
  site: Site,
  pages: readonly string[] | undefined,
  left: AttributesPlan['left'],
  stayed: readonly Stayed[],
): readonly Staying[] {
  const reasons = new Map(left.map((one) => [`${one.page} ${one.element}`, one.reason]));
  const differing = new Map(stayed.map(({ page, reason }) => [page, reason]));
  return chosenPages(site, pages).flatMap((page) => {
    const unread = unreadSheet(page, site);
    return page.tree.elements.flatMap((element): Staying[] => {
      if (attributeOf(element, 'style') === undefined) return [];
      const known = reasons.get(`${page.path} ${elementPath(element)}`);
      const code = known ?? (unread === undefined ? 'looks-different' : 'unread-sheet');
      const reason = known
        ? describeAttributeStays(known)
        : unread === undefined
          ? (differing.get(page.path) ?? 'the element would look different')
          : `the page asks for ${unread}, which cannot be read here and might beat a class`;
      return [
        {
          page: page.path,
          line: page.lines.placeOf(Math.max(element.start, 0)).line,
          kind: 'attribute',
          code,
          reason,
        },
      ];
    });
  });
}

/** What is on pages that others show. `shown`: each with those that do. */
export function shownStaying(
  site: Site,
  shown: ReadonlyMap<string, readonly string[]>,
  { keepAttributes }: { readonly keepAttributes?: boolean },
): readonly Staying[] {
  const pages = [...shown.keys()];
  const reasons = new Map(
    [...shown].map(([page, showing]) => [page, `${some(showing)} what is in this page, and may show it otherwise`]),
  );
  const stayed = [...reasons].map(([page, reason]) => ({ page, reason, key: '', element: '' }));
  const all = [
    ...blocksStaying(site, { pages }, reasons),
    ...(keepAttributes ? [] : attributesStaying(site, pages, [], stayed)),
  ];
  return all.map((one) => (one.code === 'looks-different' ? { ...one, code: 'shown-elsewhere' } : one));
}

const some = ([first, ...more]: readonly string[]): string =>
  more.length === 0
    ? `${first} shows`
    : `${first} and ${more.length} more ${more.length === 1 ? 'page' : 'pages'} show`;

/** Presentational attributes that the proof took back, one line for equal ones of a page; and elements that stay. */
export function presentationalStaying(
  site: Site,
  stayed: readonly Stayed[],
  left: HintsPlan['left'],
): readonly Staying[] {
  const pages = pagesOpened(site);
  return [
    ...stayed.map(({ page, element, reason }) => presentational(pages, page, element, 'looks-different', reason)),
    ...left.map((one) => presentational(pages, one.page, one.element, one.reason, describeElementStays(one))),
  ];
}

type OpenedPages = (path: string) => OpenPage | undefined;

/** Opens the page asked for last once, however often it is asked for. */
function pagesOpened(site: Site): OpenedPages {
  let last: { readonly path: string; readonly page: OpenPage | undefined } | undefined;
  return (path) => {
    if (last?.path !== path) last = { path, page: openPage(site.files.get(path)!) };
    return last.page;
  };
}

function presentational(pages: OpenedPages, page: string, path: string, code: StayingCode, reason: string): Staying {
  const opened = pages(page);
  const start = opened ? (elementAt(opened.tree, path)?.start ?? 0) : 0;
  const line = opened?.lines.placeOf(Math.max(start, 0)).line ?? 1;
  return { page, line, kind: 'presentational', code, reason };
}

/** A sheet the page asks for that is not in the site. */
function unreadSheet({ sources }: OpenPage, site: Site): string | undefined {
  for (const source of sources.sheets) {
    if (source.kind !== 'linked' || source.idle !== undefined) continue;
    if (isTakenAsNothing(site, source.target)) continue;
    const file = source.target.kind === 'site' ? site.files.get(source.target.path) : undefined;
    if (file?.text === undefined) return source.reference;
  }
  return undefined;
}

const chosenPages = (site: Site, pages: readonly string[] | undefined): readonly OpenPage[] => {
  const wanted = pages && new Set(pages);
  return pagesOf(site)
    .filter((file) => (wanted?.has(file.path) ?? true) && /<style|style\s*=/i.test(file.text ?? ''))
    .flatMap((file) => openPage(file) ?? []);
};
