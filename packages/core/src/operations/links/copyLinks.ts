import { trimmed } from '../../source/space.ts';
import { pagesProblems } from './linkedPages.ts';
import { closed, fields, onPages, operationType } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import type { FileEdits } from '../../source/changeSet.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';
import type { Edit } from '../../source/span.ts';
import { openPage, type OpenPage } from '../../survey/openPage.ts';
import { chosenPages, type LinkedPagesPlan, type PagesProblem } from './linkedPages.ts';
import { insertTag, linksTo, type LinkPlace } from './linkPlace.ts';
import { linkTag } from './linkTag.ts';
import { sameMedia } from './linkSheet.ts';

/** Links from pages what one page links and they lack, in that page's order. */
export interface CopyLinks {
  readonly kind: 'copy-links';
  readonly from: string;
  readonly pages: readonly string[];
}

export type CopyLinksProblem = PagesProblem | { readonly kind: 'links-alike'; readonly from: string };

interface Wanted {
  readonly sheet: string;
  readonly media: string;
  /** The page's own block stands before it. */
  readonly afterBlocks: boolean;
}

export function planCopyLinks(site: Site, { from, pages }: CopyLinks): Result<LinkedPagesPlan, CopyLinksProblem> {
  const model = site.files.get(from)?.kind === 'page' ? openPage(site.files.get(from)!) : undefined;
  if (!model) return fail({ kind: 'page-not-found', page: from });
  const opened = chosenPages(
    site,
    pages.filter((page) => page !== from),
  );
  if (!opened.ok) return opened;
  const wanted = linksOf(model);
  const edited: FileEdits[] = [];
  for (const page of opened.value) {
    const edits = missing(page, wanted);
    if (edits.length > 0) edited.push({ path: page.path, hash: page.file.hash, edits });
  }
  if (edited.length === 0) return fail({ kind: 'links-alike', from });
  return succeed({ changes: { created: [], edited, deleted: [] }, pages: edited.map((e) => e.path) });
}

function linksOf({ sources }: OpenPage): readonly Wanted[] {
  let afterBlocks = false;
  return sources.sheets.flatMap((source): readonly Wanted[] => {
    if (source.kind === 'embedded') afterBlocks = true;
    if (source.kind !== 'linked' || source.idle !== undefined || source.title !== '') return [];
    return source.target.kind === 'site'
      ? [{ sheet: source.target.path, media: trimmed(source.media), afterBlocks }]
      : [];
  });
}

/** Each missing link goes behind the one before it in the model, where the page has that; several stand together. */
function missing(page: OpenPage, wanted: readonly Wanted[]): readonly Edit[] {
  const has = ({ sheet, media }: Wanted): boolean =>
    linksTo(page, sheet).some((s) => s.idle === undefined && sameMedia(s.media, media));
  return wanted.flatMap((one, i): readonly Edit[] => {
    const tag = has(one) ? undefined : linkTag(page, one.sheet, { media: one.media });
    if (tag === undefined) return [];
    const before = wanted.slice(0, i).findLast(has);
    const next = wanted.slice(i + 1).find(has);
    const place: LinkPlace = before
      ? { at: 'after', sheet: before.sheet }
      : next
        ? { at: 'before', sheet: next.sheet }
        : { at: one.afterBlocks ? 'last' : 'before-blocks' };
    return [insertTag(page, tag, place)];
  });
}

export const copyLinks = operationType<CopyLinks, CopyLinksProblem>()({
  kind: 'copy-links',
  schema: Type.Object({ kind: Type.Literal('copy-links'), from: Type.String(), pages: fields.pages }, closed),
  plan(site, operation) {
    const plan = planCopyLinks(site, operation);
    if (!plan.ok) return plan;
    const { changes, pages } = plan.value;
    const sentence = `Link from ${onPages(pages)} what ${operation.from} links`;
    return succeed({ changes, sentence });
  },
  problems: {
    ...pagesProblems,
    'links-alike': ({ from }) => `These pages link all that ${from} links.`,
  },
});
