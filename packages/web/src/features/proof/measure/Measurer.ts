import { showMedium } from '../../../ui/frameMedium.ts';
import { hiddenFrame, holdAnimations, loaded } from '../hiddenFrame.ts';
import { EqualChains } from './EqualChains.ts';
import { compareDocuments } from './compareDocuments.ts';
import type { MeasuredPage, MeasuredView } from './measuredPages.ts';
import { viewWords } from './measuredPages.ts';

/** Two hidden frames in which nothing runs, for the same page in two states. */
export class Measurer {
  private readonly frames: readonly [HTMLIFrameElement, HTMLIFrameElement];
  private readonly roots: readonly [string, string];
  private readonly chains = new EqualChains();

  /** `roots`: the addresses of the two states, each with its slash. */
  constructor(roots: readonly [string, string]) {
    this.roots = roots;
    this.frames = [hiddenFrame('Measured'), hiddenFrame('Measured')];
  }

  async page(path: string, views: readonly MeasuredView[]): Promise<MeasuredPage> {
    const address = path.split('/').map(encodeURIComponent).join('/');
    for (const frame of this.frames) frame.style.width = `${views[0]?.width ?? 1280}px`;
    try {
      await Promise.all(this.frames.map((frame, i) => loaded(frame, this.roots[i]! + address)));
      const named: MeasuredPage['named'][number][] = [];
      let count = 0;
      for (const view of views) {
        for (const frame of this.frames) {
          frame.style.width = `${view.width}px`;
          settle(frame.contentDocument!, view);
        }
        const [before, after] = this.frames.map((frame, i) => ({
          document: frame.contentDocument!,
          root: new URL(this.roots[i]!, location.href).href,
        }));
        const found = compareDocuments(before!, after!, this.chains, viewWords(view));
        count += found.count;
        named.push(...found.named.map((one) => ({ ...one, view: viewWords(view) })));
      }
      return { count, named: named.slice(0, 20) };
    } catch (error) {
      return { count: 0, named: [], failed: error instanceof Error ? error.message : 'It could not be loaded.' };
    }
  }

  close(): void {
    for (const frame of this.frames) frame.remove();
  }
}

/** In the medium asked for, with everything that moves held at its beginning. */
function settle(document: Document, { medium }: MeasuredView): void {
  showMedium(document, medium);
  holdAnimations(document);
}
