import { showMedium } from '../../../ui/frameMedium.ts';
import { compareDocuments } from './compareDocuments.ts';
import type { MeasuredPage, MeasuredView } from './measuredPages.ts';
import { viewWords } from './measuredPages.ts';

/** A page that does not come within this time is told of as not measured. */
const patience = 20_000;

/** Two hidden frames in which nothing runs, for the same page in two states. */
export class Measurer {
  private readonly frames: readonly [HTMLIFrameElement, HTMLIFrameElement];
  private readonly roots: readonly [string, string];

  /** `roots`: the addresses of the two states, each with its slash. */
  constructor(roots: readonly [string, string]) {
    this.roots = roots;
    this.frames = [hiddenFrame(), hiddenFrame()];
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
        const [before, after] = this.frames.map((frame, i) => ({ document: frame.contentDocument!, root: new URL(this.roots[i]!, location.href).href })); // prettier-ignore
        const found = compareDocuments(before!, after!);
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

function hiddenFrame(): HTMLIFrameElement {
  const frame = document.createElement('iframe');
  frame.setAttribute('sandbox', 'allow-same-origin');
  frame.setAttribute('aria-hidden', 'true');
  frame.tabIndex = -1;
  frame.title = 'Measured';
  Object.assign(frame.style, { position: 'fixed', left: '-30000px', top: '0', width: '1280px', height: '900px', border: '0' }); // prettier-ignore
  document.body.append(frame);
  return frame;
}

function loaded(frame: HTMLIFrameElement, src: string): Promise<void> {
  return new Promise((resolve, reject) => {
    const late = setTimeout(() => reject(new Error('The page did not come within 20 seconds.')), patience);
    frame.onload = () => {
      clearTimeout(late);
      const { contentDocument } = frame;
      if (!contentDocument?.documentElement) reject(new Error('The page cannot be read here.'));
      else void contentDocument.fonts.ready.then(() => resolve());
    };
    frame.src = src;
  });
}

/** In the medium asked for, with everything that moves held at its beginning. */
function settle(document: Document, { medium }: MeasuredView): void {
  showMedium(document, medium);
  for (const animation of document.getAnimations()) {
    animation.pause();
    animation.currentTime = 0;
  }
}
