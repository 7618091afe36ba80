import { CascadeSession, type PageCascade } from '../../cascade/pageCascade.ts';
import type { Site } from '../../source/site.ts';

/** Shows each page that can be read with its rules, one after the other; a page with `noscript` once more as it is without scripts. */
export function eachCascade(site: Site, pages: readonly string[], visit: (cascade: PageCascade) => void): void {
  const session = new CascadeSession();
  for (const page of pages) {
    const file = site.files.get(page)!;
    if (file.text === undefined) continue;
    visit(session.open(site, file));
    if (/<noscript/i.test(file.text)) visit(session.open(site, file, false));
    session.forgetPages();
  }
}
