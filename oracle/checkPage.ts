import type { CDPSession, Page } from '@playwright/test';
import {
  CascadeSession,
  elementPath,
  type ElementNode,
  type Environment,
  type Site,
  type SiteFile,
} from '@syndeton/core';
import { browserWinners, type SheetHeader } from './browserWinners.ts';
import { CoreWinners } from './coreWinners.ts';
import { flatPage, layFlat } from './flatPage.ts';

/** One place where core and the browser part. */
export interface Difference {
  readonly page: string;
  readonly element: string;
  readonly slot: string;
  readonly core: string;
  readonly browser: string;
  readonly quirks?: boolean;
}

export interface CheckOptions {
  readonly environment: Environment;
  /** Ask the protocol for at most this many elements of a page; the flat look is compared for all. */
  readonly elements: number;
  /** States held on for the element with this number. */
  readonly forced?: { readonly index: number; readonly states: readonly string[] } | undefined;
}

export interface Checked {
  readonly differences: readonly Difference[];
  readonly winners: number;
  readonly boxes: number;
}

async function inBatches<T>(list: readonly number[], ask: (i: number) => Promise<T>): Promise<T[]> {
  const out: T[] = [];
  for (let from = 0; from < list.length; from += 40)
    out.push(...(await Promise.all(list.slice(from, from + 40).map(ask))));
  return out;
}

/** A page that sends the browser elsewhere cannot be asked. */
export class LedElsewhere extends Error {}

/** Compares core with the browser on one page: the winners by the protocol, and the look laid out flat. */
export class PageChecker {
  private readonly sheets = new Map<string, SheetHeader>();
  private readonly tab: Page;
  private readonly session: CDPSession;
  private readonly origin: string;

  private constructor(tab: Page, session: CDPSession, origin: string) {
    this.tab = tab;
    this.session = session;
    this.origin = origin;
    session.on('CSS.styleSheetAdded', ({ header }) => this.sheets.set(header.styleSheetId, header));
  }

  static async open(tab: Page, origin: string): Promise<PageChecker> {
    const session = await tab.context().newCDPSession(tab);
    await session.send('DOM.enable');
    await session.send('CSS.enable');
    return new PageChecker(tab, session, origin);
  }

  async check(site: Site, file: SiteFile, options: CheckOptions): Promise<Checked> {
    const { environment } = options;
    await this.tab.setViewportSize({ width: environment.width, height: environment.height });
    // through this session: with CSS enabled here, the tab's own setting is not heeded
    await this.session.send('Emulation.setEmulatedMedia', { media: environment.medium });
    this.sheets.clear();
    const address = `${this.origin}/${file.path.split('/').map(encodeURIComponent).join('/')}`;
    await this.tab.goto(address, { waitUntil: 'load' });
    const page = new CascadeSession().open(site, file);
    const { root } = await this.session.send('DOM.getDocument', { depth: 0 });
    const { nodeIds } = await this.session.send('DOM.querySelectorAll', { nodeId: root.nodeId, selector: '*' });
    const { elements } = page.tree;
    if (nodeIds.length !== elements.length) {
      if (this.tab.url() !== address) throw new LedElsewhere();
      const browser = `${nodeIds.length} elements`;
      return {
        differences: [{ page: file.path, element: 'html', slot: 'tree', core: `${elements.length} elements`, browser }],
        winners: 0,
        boxes: 0,
      };
    }
    const forced = options.forced && elements[options.forced.index] ? options.forced : undefined;
    const states = new Map<ElementNode, ReadonlySet<string>>();
    if (forced) {
      states.set(elements[forced.index]!, new Set(forced.states));
      await this.session.send('CSS.forcePseudoState', {
        nodeId: nodeIds[forced.index]!,
        forcedPseudoClasses: [...forced.states],
      });
    }
    const view = { environment, ...(forced ? { forced: states } : {}) };
    const core = new CoreWinners(site, page, view);
    const flows = await this.tab.evaluate(() =>
      [...document.querySelectorAll('*')].map((e) => {
        const { writingMode, direction } = getComputedStyle(e);
        return { writingMode, direction };
      }),
    );
    const differences: Difference[] = [];
    let winners = 0;
    const step = Math.max(1, Math.floor(elements.length / options.elements));
    const asked = elements.map((_, i) => i).filter((i) => i % step === 0);
    const answers = await inBatches(asked, (i) =>
      browserWinners(this.session, nodeIds[i]!, this.sheets, { ...flows[i]!, page: file.path }),
    );
    for (const [k, i] of asked.entries()) {
      const browser = answers[k]!;
      const own = core.of(elements[i]!);
      winners += own.size;
      for (const slot of new Set([...browser.keys(), ...own.keys()])) {
        const [a, b] = [own.get(slot), browser.get(slot)];
        if (a?.source === b?.source && a?.at === b?.at) continue;
        const print = (w: typeof a): string => (w ? `${w.source} ${w.at}` : 'none');
        differences.push({
          page: file.path,
          element: elementPath(elements[i]!),
          slot,
          core: print(a),
          browser: print(b),
          quirks: page.quirks,
        });
      }
    }
    const flat = flatPage(page, view);
    await this.tab.evaluate('globalThis.__name ??= (f) => f'); // what the TypeScript loader adds to functions
    const changed = await this.tab.evaluate(layFlat, flat);
    for (const text of changed.slice(0, 200))
      differences.push({
        page: file.path,
        element: text.split(' ')[0]!,
        slot: 'look',
        core: text,
        browser: '',
        quirks: page.quirks,
      });
    if (forced)
      await this.session.send('CSS.forcePseudoState', { nodeId: nodeIds[forced.index]!, forcedPseudoClasses: [] });
    return { differences, winners, boxes: elements.length };
  }
}
