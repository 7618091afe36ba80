import { elementPath } from '../page/parsePage.ts';
import { pagesOf, type Site } from '../source/site.ts';
import { LineIndex } from '../source/span.ts';
import { placeOfContender } from './contenderPlace.ts';
import type { Contender, View } from './contenders.ts';
import { CascadeSession, type PageCascade } from './pageCascade.ts';
import { PageOutcomes } from './pageOutcomes.ts';

/** The declaration that decides one longhand of one element or pseudo-element of a page, and where it is written. */
export interface WinnerLine {
  readonly page: string;
  /** `html>body:nth-child(2)>p:nth-child(1)`, a pseudo-element appended as `::before`. */
  readonly element: string;
  /** The longhand. */
  readonly property: string;
  /** The property as declared: a shorthand when one set the longhand. */
  readonly declared: string;
  readonly value: string;
  readonly source: 'linked' | 'imported' | 'embedded' | 'attribute' | 'hint';
  readonly file: string;
  readonly line: number;
  readonly column: number;
  readonly selector: string | null;
  readonly important: boolean;
}

/** The winners of a site's pages, one page after the other, in document order; custom properties left out. */
export function* siteWinners(
  site: Site,
  view: View,
  wanted: (page: string) => boolean = () => true,
): Iterable<readonly WinnerLine[]> {
  const session = new CascadeSession();
  const lines = new Map<string, LineIndex>();
  for (const file of pagesOf(site)) {
    if (file.text === undefined || !wanted(file.path)) continue;
    const page = session.open(site, file);
    const own = new LineIndex(page.tree.text);
    yield pageWinners(page, view, (path) => {
      if (path === file.path) return own;
      let known = lines.get(path);
      if (!known) lines.set(path, (known = new LineIndex(site.files.get(path)?.text ?? '')));
      return known;
    });
  }
}

export function pageWinners(
  page: PageCascade,
  view: View,
  linesOf: (path: string) => LineIndex,
): readonly WinnerLine[] {
  const outcomes = new PageOutcomes(page, view);
  const out: WinnerLine[] = [];
  for (const element of page.tree.elements) {
    const path = elementPath(element);
    const pseudoElements = new Set(['']);
    for (const { indexed } of page.matchedAtRest(element, view.forced)) pseudoElements.add(indexed.pseudoElement);
    for (const pseudoElement of pseudoElements)
      for (const [property, contender] of outcomes.winnersOf(element, pseudoElement)) {
        if (property.startsWith('--')) continue;
        const at = placeOfContender(contender, page, element);
        const place = linesOf(at.path).placeOf(at.offset);
        out.push({
          page: page.path,
          element: path + pseudoElement,
          property,
          ...described(contender),
          file: at.path,
          ...place,
        });
      }
  }
  return out;
}

function described(contender: Contender): Pick<WinnerLine, 'declared' | 'value' | 'source' | 'selector' | 'important'> {
  const { property, value, important } = contender.compiled.declaration;
  return {
    declared: property,
    value,
    source: contender.origin === 'rule' ? contender.source!.kind : contender.origin,
    selector: contender.selector ?? null,
    important,
  };
}
