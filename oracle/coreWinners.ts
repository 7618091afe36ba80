import {
  LineIndex,
  PageOutcomes,
  placeOfContender,
  type Contender,
  type ElementNode,
  type PageCascade,
  type Site,
  type View,
} from '@syndeton/core';
import type { BrowserWinner } from './browserWinners.ts';

/** Core's winners of one page in the form of browserWinners. */
export class CoreWinners {
  private readonly outcomes: PageOutcomes;
  private readonly lines = new Map<string, LineIndex>();
  private readonly page: PageCascade;
  private readonly site: Site;
  private readonly view: View;

  constructor(site: Site, page: PageCascade, view: View) {
    this.site = site;
    this.page = page;
    this.view = view;
    this.outcomes = new PageOutcomes(page, view);
  }

  of(element: ElementNode): ReadonlyMap<string, BrowserWinner> {
    const out = new Map<string, BrowserWinner>();
    const pseudoElements = new Set(['']);
    for (const { indexed } of this.page.matchedAtRest(element, this.view.forced))
      pseudoElements.add(indexed.pseudoElement);
    for (const pseudoElement of pseudoElements)
      for (const [longhand, contender] of this.outcomes.winnersOf(element, pseudoElement))
        if (!longhand.startsWith('--')) out.set(`${pseudoElement} ${longhand}`, this.winner(contender, element));
    return out;
  }

  private winner(contender: Contender, element: ElementNode): BrowserWinner {
    if (contender.origin === 'hint') return { source: 'hint', at: '' };
    if (contender.origin === 'attribute') return { source: 'attribute', at: contender.compiled.declaration.property };
    const { path, offset } = placeOfContender(contender, this.page, element);
    let index = this.lines.get(path);
    if (!index) {
      const text = path === this.page.path ? this.page.tree.text : (this.site.files.get(path)?.text ?? '');
      this.lines.set(path, (index = new LineIndex(text)));
    }
    const { line, column } = index.placeOf(offset);
    return { source: 'rule', at: `${path}:${line}:${column}` };
  }
}
