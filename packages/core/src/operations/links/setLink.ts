import { trimmed } from '../../source/space.ts';
import { linkedPagesProblems } from './linkedPages.ts';
import { PathStyleSchema, pathStyleProblems } from './linkTag.ts';
import { closed, fields, onPages, operationType } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import { attributeEdit } from '../../checks/retarget.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { LinkedSource } from '../../page/styleSources.ts';
import { pageSyntax } from '../../page/pageSyntax.ts';
import type { Site } from '../../source/site.ts';
import type { Edit } from '../../source/span.ts';
import type { OpenPage } from '../../survey/openPage.ts';
import { dropAttribute } from '../pages/editClass.ts';
import { editLinks, type LinkedPagesPlan, type LinkedPagesProblem } from './linkedPages.ts';
import { isHost, sheetReference, type PathStyle, type PathStyleProblem } from './linkTag.ts';
import { sameMedia } from './linkSheet.ts';

/** Changes what the links to a sheet say: their medium, how they name the sheet. The other attributes stay. */
export interface SetLink {
  readonly kind: 'set-link';
  readonly sheet: string;
  readonly pages?: readonly string[];
  /** A media query list; '' or 'all' takes the attribute out. */
  readonly media?: string;
  readonly paths?: PathStyle;
}

export type SetLinkProblem =
  | LinkedPagesProblem
  | PathStyleProblem
  | { readonly kind: 'says-so-already'; readonly sheet: string };

export function planSetLink(site: Site, operation: SetLink): Result<LinkedPagesPlan, SetLinkProblem> {
  const { sheet, pages, media, paths } = operation;
  if (typeof paths === 'object' && !isHost(paths.host)) return fail({ kind: 'bad-host', host: paths.host });
  const plan = editLinks(site, sheet, pages, (page, links) =>
    links.flatMap((link) => [
      ...(media === undefined ? [] : mediaEdits(page, link, trimmed(media))),
      ...(paths === undefined ? [] : pathEdits(page, link, sheet, paths)),
    ]),
  );
  if (!plan.ok) return plan;
  if (!plan.value.linked) return fail({ kind: 'not-linked-there', sheet });
  return plan.value.pages.length === 0 ? fail({ kind: 'says-so-already', sheet }) : plan;
}

function mediaEdits(page: OpenPage, link: LinkedSource, media: string): readonly Edit[] {
  if (sameMedia(link.media, media)) return [];
  const spans = link.element.attributeSpans;
  if (!spans) return [];
  if (/^(all)?$/i.test(media)) return spans['media'] ? [dropAttribute(page.text, spans, 'media')] : [];
  const there = spans['media'] && attributeEdit(page, link.element, 'media', media);
  if (there) return [there];
  const { quote, upperCase } = pageSyntax(page.tree);
  const safe = media.replaceAll('&', '&amp;').replaceAll(quote, quote === '"' ? '&quot;' : '&#39;');
  const text = ` ${upperCase ? 'MEDIA' : 'media'}=${quote}${safe}${quote}`;
  // `media` without a value is written anew
  if (spans['media']) return [{ span: { start: spans['media'].startOffset - 1, end: spans['media'].endOffset }, text }];
  const at = spans['href']!.endOffset;
  return [{ span: { start: at, end: at }, text }];
}

function pathEdits(page: OpenPage, link: LinkedSource, sheet: string, paths: PathStyle): readonly Edit[] {
  const reference = sheetReference(page, sheet, paths);
  if (reference === undefined) return [];
  const written = reference + (/[?#].*$/s.exec(trimmed(link.reference))?.[0] ?? '');
  const edit = written === link.reference ? undefined : attributeEdit(page, link.element, 'href', written);
  return edit ? [edit] : [];
}

export const setLink = operationType<SetLink, SetLinkProblem>()({
  kind: 'set-link',
  schema: Type.Object(
    {
      kind: Type.Literal('set-link'),
      sheet: fields.sheet,
      pages: fields.somePages,
      media: Type.Optional(Type.String({ maxLength: 1000 })),
      paths: Type.Optional(PathStyleSchema),
    },
    closed,
  ),
  plan(site, operation) {
    const plan = planSetLink(site, operation);
    if (!plan.ok) return plan;
    const { changes, pages } = plan.value;
    const sentence = `Link ${operation.sheet} ${whatIsSet(operation)} on ${onPages(pages)}`;
    return succeed({ changes, sentence });
  },
  problems: {
    ...linkedPagesProblems,
    ...pathStyleProblems,
    'says-so-already': ({ sheet }) => `The links to ${sheet} say that already.`,
  },
});

function whatIsSet({ media, paths }: SetLink): string {
  const medium = trimmed(media ?? '');
  const forMedium = media === undefined ? [] : [`for ${/^(all)?$/i.test(medium) ? 'all media' : medium}`];
  if (paths === undefined) return forMedium.join('');
  const way =
    paths === 'page'
      ? 'by a path from the page'
      : paths === 'root'
        ? 'by a path from the site root'
        : 'with the host name';
  return [...forMedium, way].join(', ');
}
