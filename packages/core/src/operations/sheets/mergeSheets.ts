import { trimmed } from '../../source/space.ts';
import { Type } from '@sinclair/typebox';
import { attributeOf } from '../../page/nodes.ts';
import { attributeEdit, referenceTo } from '../../checks/retarget.ts';
import type { Edit } from '../../source/span.ts';
import { lineEndOf, withLineEnds } from '../../source/lineEnds.ts';
import { wholeLines } from '../../source/removal.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';
import { pagesOf } from '../../source/site.ts';
import { openPage } from '../../survey/openPage.ts';
import { printReference, urlReferences } from '../../sheet/urlReferences.ts';
import type { ImportRule } from '../../sheet/sheet.ts';
import { siteBase } from '../../values/urls.ts';
import { linksTo } from '../links/linkPlace.ts';
import { asciiText, closingText, rebasedText } from '../gather/printRule.ts';
import { closed, fields, onPages, operationType, type OperationPlan } from '../operationType.ts';
import { editableSheet, ruleProblems, type RuleProblem } from '../rules/ruleRef.ts';
import { placedText } from '../rules/placeForRules.ts';
import { importsOf } from './renameSheet.ts';
import { editWays } from './linksAndImports.ts';

/** All rules of a sheet go into another one, at its start or end as the pages link them, and its links go. */
export interface MergeSheets {
  readonly kind: 'merge-sheets';
  readonly sheet: string;
  readonly into: string;
}

export type MergeSheetsProblem =
  | RuleProblem
  | {
      readonly kind: 'merge-refused';
      readonly sheet: string;
      readonly into: string;
      readonly why: keyof typeof mergeReasons;
    };

const mergeReasons = {
  same: 'it is the same sheet.',
  imports: 'rules would come to stand before an @import or @namespace, which browsers then drop.',
  address: 'it holds an address or a string that cannot be written there.',
  imported: 'other sheets or blocks import it under a condition or into a layer. Make these imports links first.',
  media: 'its links are for other media on different pages.',
} as const;

export function planMergeSheets(site: Site, { sheet, into }: MergeSheets): Result<OperationPlan, MergeSheetsProblem> {
  const refused = (why: keyof typeof mergeReasons): Result<never, MergeSheetsProblem> =>
    fail({ kind: 'merge-refused', sheet, into, why });
  if (sheet === into) return refused('same');
  const source = editableSheet(site, sheet);
  if (!source.ok) return source;
  const target = editableSheet(site, into);
  if (!target.ok) return target;
  const { first, media, isImported } = waysOf(site, sheet, into);
  if (isImported) return refused('imported');
  if (media === undefined) return refused('media');
  const ahead = (of: typeof source.value): boolean =>
    of.sheet.rules.some((rule) => rule.kind === 'import' || (rule.kind === 'statement' && rule.name === 'namespace'));
  if (ahead(first ? target.value : source.value) || (media !== '' && ahead(source.value))) return refused('imports');
  const bare = source.value.text.replace(/^\ufeff?(?:@charset "[^"\n]*";[ \t]*(?:\r\n|\r|\n)?)?/, '');
  const closing = closingText(bare);
  const moved = closing === undefined ? undefined : rebasedText(bare + closing, siteBase(sheet), into);
  if (moved === undefined) return refused('address');
  const lineEnd = lineEndOf(target.value.text === '' ? moved : target.value.text);
  const plain = withLineEnds(asciiText(moved), lineEnd);
  const body = plain.replace(/(?:\r\n|\r|\n)+$/, '');
  const written = media === '' ? body : `@media ${media} {${lineEnd}${body}${lineEnd}}`;
  const at = first
    ? (/^\ufeff?(?:@charset "[^"\n]*";[ \t]*(?:\r\n|\r|\n)?)?/.exec(target.value.text)?.[0].length ?? 0)
    : target.value.text.length;
  const put: Edit = { span: { start: at, end: at }, text: placedText(target.value.text, at, written, lineEnd) };
  const ways = editWays(site, sheet, {
    // a page that has only this one gets the other in its place
    link: (page, { element, span }) => {
      if (linksTo(page, into).some(({ idle }) => idle === undefined))
        return [{ span: wholeLines(page.text, span), text: '' }];
      const to = referenceTo(into, page.sources.base, attributeOf(element, 'href') ?? '');
      const edit = to === undefined ? undefined : attributeEdit(page, element, 'href', to);
      return edit ? [edit] : [];
    },
    statement: (text, span, base, reference, inside) => {
      const others = importsOf(inside, base, into);
      if (others.length > 0) return [{ span: wholeLines(text, span), text: '' }];
      const said = urlReferences(text, span.start, span.end)[0];
      const to = referenceTo(into, base, reference);
      return said && to !== undefined
        ? [{ span: said.span, text: printReference(to, text.slice(said.span.start, said.span.end)) }]
        : [];
    },
  });
  const edited = [{ path: into, hash: target.value.file.hash, edits: [put] }, ...ways.edited];
  const sentence = `Put all of ${sheet} into ${into}, ${first ? 'at its start' : 'at its end'}, and change ${onPages(ways.pages)}`;
  return succeed({ changes: { created: [], edited, deleted: [sheet] }, sentence });
}

const isConditional = ({ media, layer, supports }: ImportRule): boolean =>
  media !== '' || layer !== undefined || supports !== undefined;

/** Whether the sheet comes before the other on most pages that link both, and its one medium; '' for all, undefined for several. */
function waysOf(
  site: Site,
  sheet: string,
  into: string,
): { readonly first: boolean; readonly media: string | undefined; readonly isImported: boolean } {
  let before = 0;
  const media = new Set<string>();
  let isImported = false;
  for (const file of site.files.values())
    if (
      file.kind === 'sheet' &&
      file.path !== sheet &&
      importsOf(file.text ?? '', siteBase(file.path), sheet).some(isConditional)
    )
      isImported = true;
  for (const file of pagesOf(site)) {
    const page = openPage(file);
    if (!page) continue;
    const [own, other] = [linksTo(page, sheet), linksTo(page, into)];
    for (const link of own) {
      const same = other.some((one) => trimmed(one.media).toLowerCase() === trimmed(link.media).toLowerCase());
      media.add(same || /^(all)?$/i.test(trimmed(link.media)) ? '' : trimmed(link.media));
    }
    if (own[0] && other[0]) before += own[0].span.start < other[0].span.start ? 1 : -1;
    for (const { source, base } of page.blocks)
      if (importsOf(page.text.slice(source.contents.start, source.contents.end), base, sheet).some(isConditional))
        isImported = true;
  }
  return { first: before > 0, media: media.size > 1 ? undefined : ([...media][0] ?? ''), isImported };
}

export const mergeSheets = operationType<MergeSheets, MergeSheetsProblem>()({
  kind: 'merge-sheets',
  schema: Type.Object({ kind: Type.Literal('merge-sheets'), sheet: fields.sheet, into: fields.sheet }, closed),
  plan: planMergeSheets,
  problems: {
    ...ruleProblems,
    'merge-refused': ({ sheet, into, why }) => `${sheet} cannot go into ${into}: ${mergeReasons[why]}`,
  },
});
