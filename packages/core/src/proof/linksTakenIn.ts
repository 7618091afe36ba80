import { pagesOf, type Site, type SiteFile } from '../source/site.ts';
import { fileNameOf } from '../source/sitePath.ts';
import { asksByName, TakenIn } from './takenIn.ts';

/**
 * Pages that others surely show, as a server includes a common head, and that name a sheet that is another file now: it comes into those
 * with the link.
 */
export class LinksTakenIn {
  private readonly takenIn: TakenIn | undefined;
  /** What each such page names, itself or by what it shows. */
  private readonly named = new Map<string, ReadonlySet<string>>();
  /** Some script asks for a page by its name. */
  private readonly anyScript: boolean;

  constructor(site: Site, sheets: readonly string[]) {
    const names = [...new Set(sheets.map(fileNameOf))];
    this.anyScript =
      names.length > 0 && [...site.files.values()].some((file) => /\.m?js$/i.test(file.path) && asksByName(file));
    const pages = names.length === 0 ? [] : pagesOf(site);
    const showing = pages.filter((page) => this.mayShow(page));
    if (showing.length === 0) return;
    for (const { path, text = '' } of pages) {
      const own = names.filter((name) => text.includes(name));
      if (own.length > 0) this.named.set(path, new Set(own));
    }
    this.takenIn = this.follow(site, showing);
  }

  /** Those this page shows with a link it does not have itself. */
  of(file: SiteFile): readonly string[] {
    const { text } = file;
    if (!this.takenIn || text === undefined || !this.mayShow(file)) return [];
    return this.takenIn
      .surelyOf(file)
      .filter((path) => [...(this.named.get(path) ?? [])].some((name) => !text.includes(name)));
  }

  /** What is shown by what is shown counts as well. */
  private follow(site: Site, showing: readonly SiteFile[]): TakenIn {
    for (let depth = 0; ; depth++) {
      const takenIn = new TakenIn(site, [...this.named.keys()]);
      let grown = false;
      for (const page of depth > 20 ? [] : showing) {
        const own = this.named.get(page.path) ?? new Set();
        const all = new Set([...own, ...takenIn.surelyOf(page).flatMap((path) => [...this.named.get(path)!])]);
        if (all.size === own.size) continue;
        this.named.set(page.path, all);
        grown = true;
      }
      if (!grown) return takenIn;
    }
  }

  private mayShow(page: SiteFile): boolean {
    return mayAsk(page) || (this.anyScript && /<script\b[^>]{0,500}?\ssrc/i.test(page.text ?? ''));
  }
}

const known = new WeakMap<SiteFile, boolean>();

function mayAsk(file: SiteFile): boolean {
  let may = known.get(file);
  if (may === undefined) known.set(file, (may = hints.test(file.text ?? '')));
  return may;
}

/** What a page has that includes or asks for another. */
const hints = /#\s*include|<\?(?!xml)|<%|\{[{%]|:include|\bfetch\b|XMLHttp|\.(?:load|get|post|ajax)\b|\baxios\b/i;
