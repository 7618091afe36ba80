import type { Environment } from '../cascade/environment.ts';
import { hangsOnPathOnly, markPaths, reachedBy } from '../cascade/keptMatching.ts';
import { CascadeSession } from '../cascade/pageCascade.ts';
import type { Look } from '../page/keptTree.ts';
import { parseSelectorList } from '../selectors/parseSelector.ts';
import { pagesOf, type Site } from '../source/site.ts';
import { elementNames } from '../survey/elementNames.ts';
import type { UnchangedPages } from '../survey/unchangedPages.ts';
import { KindTable, type Kind, type KindPage } from './kindTable.ts';
import { OutcomesIn } from './outcomesIn.ts';

/** The elements a selector reaches: by their cells alone, or one by one where siblings or children decide. */
export type Reaching =
  | { readonly by: 'cell'; readonly cells: Uint8Array }
  | { readonly by: 'element'; readonly elements: ReadonlyMap<string, readonly number[]> };

/** Tables that hold this many times what they held when they were new are made anew. */
const mostGrowth = 2;

/**
 * All pages of a site in memory with the kind of every element and of its ancestors, so that a question over the whole site is
 * answered without reading a page again. Nothing is hovered, focused or visited; the environment is asked for with each question.
 * Going on from those of another state, only pages that changed, or that a change touches, are read; the other takes no further questions:
 * its tables are these ones'.
 */
export class KeptOutcomes {
  readonly site: Site;
  private readonly table: KindTable;
  /** How many cells the tables held when they were new. */
  private firstCells: number;
  private readonly reaches = new Map<string, Reaching>();
  private readonly environments = new Map<string, OutcomesIn>();
  private readonly read = new Map<string, KindPage>();
  private whole: readonly KindPage[] | undefined;

  constructor(site: Site, from?: { readonly last: KeptOutcomes; readonly unchanged: UnchangedPages }) {
    this.site = site;
    this.table = from?.last.table ?? new KindTable();
    this.firstCells = from?.last.firstCells ?? 0;
    if (!from) return;
    this.table.move(from.unchanged.moves);
    for (const [path, page] of from.last.read) {
      const file = site.files.get(path);
      if (file?.hash === page.hash && from.unchanged.has(file)) this.read.set(path, page);
    }
  }

  /** In the order of the site's files. Reads what is not read yet. */
  get pages(): readonly KindPage[] {
    return this.readAll();
  }

  /** Reads what is not read yet; broken off by what `onPage` throws, it may be called again, or gone on from. */
  readAll(onPage: (done: number, total: number) => void = () => undefined): readonly KindPage[] {
    if (this.whole) return this.whole;
    const session = new CascadeSession();
    const files = pagesOf(this.site).filter((file) => file.text !== undefined);
    let done = this.read.size;
    for (const file of files) {
      if (this.read.has(file.path)) continue;
      const page = session.open(this.site, file);
      // what a later change of a sheet may reach is told by these
      elementNames(file, page.tree);
      this.read.set(file.path, this.table.read(page, file.hash));
      session.sheets.forgetEmbedded();
      onPage(++done, files.length);
    }
    this.firstCells ||= this.table.cellCount;
    return (this.whole = files.map(({ path }) => this.read.get(path)!));
  }

  /** Whether most of what the tables hold may be of states that are gone. */
  get hasGrown(): boolean {
    return this.firstCells > 0 && this.table.cellCount > this.firstCells * mostGrowth + 1000;
  }

  /** Undefined when browsers refuse the selector. */
  reach(selectors: string): Reaching | undefined {
    const known = this.reaches.get(selectors);
    if (known) return known;
    const reaching = this.look(selectors);
    if (this.reaches.size > 30) this.reaches.clear();
    if (reaching) this.reaches.set(selectors, reaching);
    return reaching;
  }

  private look(selectors: string): Reaching | undefined {
    const list = parseSelectorList(selectors);
    if (!list) return undefined;
    const { looks } = this.table;
    const { pages } = this;
    if (!list.every(hangsOnPathOnly)) return { by: 'element', elements: reachedBy(list, pages, looks) };
    const modes = new Set(pages.map((page) => page.quirks));
    const marked = [false, true].map((quirks) => (modes.has(quirks) ? markPaths(list, quirks, looks) : undefined));
    const cells = new Uint8Array(this.table.cellCount);
    for (let cell = 0; cell < cells.length; cell++) {
      const { quirks } = this.kindOfCell(cell);
      // cells of pages that are gone may be of a mode that no page has
      cells[cell] = marked[quirks ? 1 : 0]?.[this.table.pathOfCell(cell)] ?? 0;
    }
    return { by: 'cell', cells };
  }

  /** Outcomes in one environment; what was found once is kept. */
  in(environment: Environment): OutcomesIn {
    const key = JSON.stringify(environment);
    let known = this.environments.get(key);
    if (!known) {
      if (this.environments.size > 3) this.environments.clear();
      this.readAll();
      this.environments.set(key, (known = new OutcomesIn(this.table, environment)));
    }
    return known;
  }

  /** How many elements of the site look so: by name, ID, classes and other attributes. */
  countLooks(visit: (look: Look, elements: number) => void): void {
    const { looks } = this.table;
    const counts = new Int32Array(looks.lookCount);
    for (const { cells } of this.pages)
      for (const cell of cells) counts[looks.lookOfPath(this.table.pathOfCell(cell))]!++;
    counts.forEach((count, i) => count > 0 && visit(looks.look(i), count));
  }

  get kinds(): readonly Kind[] {
    return this.table.kinds;
  }

  get cellCount(): number {
    return this.table.cellCount;
  }

  chainOfCell(cell: number): number {
    return this.table.chainOfCell(cell);
  }

  kindOfCell(cell: number): Kind {
    return this.table.kindOfChain(this.table.chainOfCell(cell));
  }
}
