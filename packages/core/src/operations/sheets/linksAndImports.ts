import { wholeLines } from '../../source/removal.ts';
import { pagesOf, sheetsOf, type Site } from '../../source/site.ts';
import type { Edit, Span } from '../../source/span.ts';
import type { FileEdits } from '../../source/changeSet.ts';
import { openPage, type OpenPage } from '../../survey/openPage.ts';
import { siteBase, type Base } from '../../values/urls.ts';
import type { LinkedSource } from '../../page/styleSources.ts';
import { linksTo } from '../links/linkPlace.ts';
import { importsOf } from './renameSheet.ts';

/** What is done with each way to a sheet: the edits for a link's tag, and for an import's statement. */
export interface WayEdits {
  readonly link: (page: OpenPage, link: LinkedSource) => readonly Edit[];
  /** `span` is in the whole file; `inside` is the sheet's or block's own text. */
  readonly statement: (text: string, span: Span, base: Base, reference: string, inside: string) => readonly Edit[];
}

/** Edits for every link and import that leads to a sheet, in pages and sheets. */
export function editWays(
  site: Site,
  sheet: string,
  { link, statement }: WayEdits,
): { readonly edited: readonly FileEdits[]; readonly pages: readonly string[] } {
  const edited: FileEdits[] = [];
  const put = (path: string, hash: string, edits: readonly Edit[]): void => {
    if (edits.length > 0) edited.push({ path, hash, edits });
  };
  const inText = (text: string, contents: Span, base: Base): readonly Edit[] =>
    importsOf(text.slice(contents.start, contents.end), base, sheet).flatMap(({ span, reference }) =>
      statement(
        text,
        { start: contents.start + span.start, end: contents.start + span.end },
        base,
        reference,
        text.slice(contents.start, contents.end),
      ),
    );
  for (const { path, hash, text } of sheetsOf(site))
    if (path !== sheet && text !== undefined)
      put(path, hash, inText(text, { start: 0, end: text.length }, siteBase(path)));
  const before = edited.length;
  for (const file of pagesOf(site)) {
    const page = openPage(file);
    if (!page) continue;
    const inBlocks = page.blocks.flatMap(({ source, base }) =>
      source.foreign ? [] : inText(page.text, source.contents, base),
    );
    put(file.path, file.hash, [...linksTo(page, sheet).flatMap((one) => link(page, one)), ...inBlocks]);
  }
  return { edited, pages: edited.slice(before).map(({ path }) => path) };
}

/** Takes every link and import out. */
export const withoutWays: WayEdits = {
  link: ({ text }, { span }) => [{ span: wholeLines(text, span), text: '' }],
  statement: (text, span) => [{ span: wholeLines(text, span), text: '' }],
};
