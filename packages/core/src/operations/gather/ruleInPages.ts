import { parseFile } from '../../page/parsePage.ts';
import { styleSources } from '../../page/styleSources.ts';
import { lineEndOf } from '../../source/lineEnds.ts';
import { indentationAt } from '../../source/removal.ts';
import { pagesOf, type Site, type SiteFile } from '../../source/site.ts';
import { textOf } from '../../source/span.ts';
import { embeddedBlocks, type BlockUnit, type EmbeddedBlock } from '../../survey/blockUnits.ts';
import type { Base } from '../../values/urls.ts';
import { dedented, indented, rebasedText } from './printRule.ts';

/** The embedded blocks of a page that count and are its own. */
export interface PageBlocks {
  readonly file: SiteFile;
  readonly text: string;
  readonly base: Base;
  readonly blocks: readonly EmbeddedBlock[];
}

/** A rule in a page. */
export interface FoundRule extends PageBlocks {
  readonly unit: BlockUnit;
}

export function blocksOf(file: SiteFile): PageBlocks | undefined {
  const { text } = file;
  if (text === undefined || !/<style/i.test(text)) return undefined;
  const tree = parseFile(file);
  const sources = styleSources(tree, file.path);
  const blocks = embeddedBlocks(tree, file.path, sources).filter(
    ({ source }) => !source.foreign && source.idle === undefined,
  );
  return { file, text, base: sources.base, blocks };
}

/** All versions of a rule, in the order of the pages. */
export const rulesOfFamily = (site: Site, family: string): readonly FoundRule[] =>
  pagesOf(site).flatMap((file) => {
    const page = blocksOf(file);
    const units = page?.blocks.flatMap((block) => block.units.filter((unit) => unit.family === family)) ?? [];
    return units.map((unit) => ({ ...page!, unit }));
  });

/** A rule's text as another page would write it: references counted from there, at this indentation, with its line ends. */
export function asWrittenIn(page: PageBlocks, own: string, kept: FoundRule): string | undefined {
  const target = page.base.kind === 'site' ? page.base.path : undefined;
  if (target === undefined) return undefined;
  const moved = rebasedText(textOf(kept.text, kept.unit.span), kept.base, target);
  if (moved === undefined) return undefined;
  const lineEnd = lineEndOf(page.text);
  const plain = dedented(moved, indentationAt(kept.text, kept.unit.span.start), lineEnd);
  return indented(plain, own, lineEnd).slice(own.length);
}
