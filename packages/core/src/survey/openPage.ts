import { parseFile, type PageTree } from '../page/parsePage.ts';
import { styleSources, type StyleSources } from '../page/styleSources.ts';
import type { SiteFile } from '../source/site.ts';
import { LineIndex } from '../source/span.ts';
import { embeddedBlocks, type EmbeddedBlock } from './blockUnits.ts';

/** One page read once, for all that look at it. */
export interface OpenPage {
  readonly file: SiteFile;
  readonly path: string;
  readonly text: string;
  readonly tree: PageTree;
  readonly sources: StyleSources;
  readonly blocks: readonly EmbeddedBlock[];
  readonly lines: LineIndex;
}

/** Undefined for a page that does not encode back to its own bytes. */
export function openPage(file: SiteFile): OpenPage | undefined {
  const { path, text } = file;
  if (text === undefined) return undefined;
  const tree = parseFile(file);
  const sources = styleSources(tree, path);
  return { file, path, text, tree, sources, blocks: embeddedBlocks(tree, path, sources), lines: new LineIndex(text) };
}
