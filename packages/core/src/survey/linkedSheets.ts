import { pagesOf, sheetsOf, type Site, type SiteFile } from '../source/site.ts';
import { resolveReference, type Target } from '../values/urls.ts';
import { openPage } from './openPage.ts';
import { SheetReader } from './sheetReader.ts';
import type { SheetSurvey } from './survey.ts';

/** The sheets of a site with the pages that take rules from them. Pages whose bytes are as they were are not read again. */
export class LinkedSheets {
  private readonly asked = new Map<string, { readonly hash: string; readonly targets: readonly Target[] }>();

  of(site: Site): readonly SheetSurvey[] {
    const reader = new SheetReader(site);
    const pages = new Map<string, string[]>();
    for (const file of pagesOf(site))
      for (const path of this.sheetsOf(file, reader)) {
        const list = pages.get(path);
        if (list) list.push(file.path);
        else pages.set(path, [file.path]);
      }
    return sheetsOf(site).map(({ path, bytes }) => ({
      path,
      bytes: bytes.length,
      rules: reader.read(path)?.rules ?? 0,
      pages: pages.get(path) ?? [],
    }));
  }

  /** With what these import. */
  private sheetsOf(file: SiteFile, reader: SheetReader): ReadonlySet<string> {
    const read = this.targetsOf(file).flatMap((target) => reader.withImports(target, '', 'linked'));
    return new Set(
      read.flatMap(({ target, problem }) => (problem === undefined && target !== undefined ? [target] : [])),
    );
  }

  /** What the page's links and the imports of its blocks ask for. */
  private targetsOf(file: SiteFile): readonly Target[] {
    const known = this.asked.get(file.path);
    if (known?.hash === file.hash) return known.targets;
    const page = openPage(file);
    const targets: Target[] = [];
    for (const source of page?.sources.sheets ?? [])
      if (source.kind === 'linked' && source.idle === undefined) targets.push(source.target);
    for (const block of page?.blocks ?? [])
      for (const rule of block.source.idle === undefined ? block.sheet.rules : [])
        if (rule.kind === 'import') targets.push(resolveReference(rule.reference, block.base));
    this.asked.set(file.path, { hash: file.hash, targets });
    return targets;
  }
}
