import type { ProofReply } from '@syndeton/contract';
import { downloadText } from '../../../ui/downloadText.ts';
import type { MeasuredPage } from './measuredPages.ts';

interface Asked {
  readonly page: string;
  /** The addresses of the two states, each with its slash. */
  readonly roots: readonly [before: string, after: string];
  readonly proof: ProofReply['pages'][number] | undefined;
  readonly measured: MeasuredPage;
}

/** Puts all that shows a disagreement into one file: what was said on both sides, the page and its sheets in both states. */
export async function saveDisagreement({ page, roots, proof, measured }: Asked): Promise<void> {
  const [before, after] = await Promise.all(roots.map((root) => filesOf(root, page)));
  const said = { page, browser: navigator.userAgent, proof, measured, before, after };
  downloadText('disagreement.json', 'application/json', JSON.stringify(said, null, 2));
}

/** The page and the sheets it links, by path. */
async function filesOf(root: string, page: string): Promise<Readonly<Record<string, string>>> {
  const address = root + page.split('/').map(encodeURIComponent).join('/');
  const text = await (await fetch(address)).text();
  const out: Record<string, string> = { [page]: text };
  const base = new URL(root, location.href).href;
  for (const link of new DOMParser().parseFromString(text, 'text/html').querySelectorAll('link[href]')) {
    const target = new URL(link.getAttribute('href')!, new URL(address, location.href)).href;
    if (/\bstylesheet\b/i.test(link.getAttribute('rel') ?? '') && target.startsWith(base))
      out[decodeURIComponent(target.slice(base.length))] = await (await fetch(target)).text();
  }
  return out;
}
