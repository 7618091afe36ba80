import { asciiText } from '../source/asciiBytes.ts';
import { pagesOf, type Site, type SiteFile } from '../source/site.ts';
import { fileNameOf } from '../source/sitePath.ts';
import { namesInLinks, namesInList, namesInPage, namesInScript, type PageNames } from './pageNames.ts';
import type { Doubt } from './proof.ts';

/**
 * Pages whose contents another one may show: its server includes them, or a script fetches them by a name that it, an attribute, a list
 * or a link says. HTML Standard, "Dynamic markup insertion"; Fetch; server-side includes and templates as common practice has them.
 * What a script fetches by a name it makes is not followed.
 */
export class TakenIn {
  private readonly scripts: ReadonlyMap<string, readonly SiteFile[]>;
  private readonly changed: ReadonlyMap<string, readonly { readonly path: string; readonly whole: string }[]>;

  /** `changed`: paths of the pages whose bytes differ. */
  constructor(site: Site, changed: readonly string[]) {
    const pages = new Set(pagesOf(site).map(({ path }) => path));
    const wholes = changed.flatMap((path) => (pages.has(path) ? [{ path, whole: `/${path.toLowerCase()}` }] : []));
    this.changed = byName(wholes, ({ whole }) => fileNameOf(whole));
    const scripts = [...site.files.values()].filter(({ path }) => /\.(?:m?js|json)$/i.test(path));
    this.scripts = byName(this.changed.size === 0 ? [] : scripts, ({ path }) => fileNameOf(path).toLowerCase());
  }

  /** The changed pages that this one may show. */
  of(file: SiteFile): readonly string[] {
    if (this.changed.size === 0 || file.text === undefined) return [];
    const own = namesIn(file, namesInPage);
    const names = [...own.included];
    const scripts = this.scriptsOf(file);
    const isFetching = own.isFetching || scripts.some((script) => script.isFetching);
    if (isFetching) names.push(...own.inScripts);
    // a script that is not here may read them
    if (isFetching || own.scripts.some((name) => !this.scripts.has(name))) names.push(...own.inAttributes);
    for (const script of scripts) names.push(...script.inScripts);
    for (const { listsNamed } of [own, ...scripts]) names.push(...listsNamed.flatMap((name) => this.inList(name)));
    if (isFetching && [own, ...scripts].some(({ followsLinks }) => followsLinks))
      names.push(...namesInLinks(file.text));
    return this.pagesNamed(names, file);
  }

  /** Those it includes, or asks for by their name. */
  surelyOf(file: SiteFile): readonly string[] {
    if (this.changed.size === 0) return [];
    const own = namesIn(file, namesInPage);
    return this.pagesNamed(
      [...own.included, ...own.fetched, ...this.scriptsOf(file).flatMap(({ fetched }) => fetched)],
      file,
    );
  }

  private scriptsOf(file: SiteFile): readonly PageNames[] {
    const files = namesIn(file, namesInPage).scriptsNamed.flatMap((name) => this.scripts.get(name) ?? []);
    return files.map((script) => namesIn(script, namesInScript));
  }

  private inList(name: string): readonly string[] {
    return (this.scripts.get(name) ?? []).flatMap(({ text, bytes }) => namesInList(text ?? asciiText(bytes)));
  }

  private pagesNamed(names: readonly string[], file: SiteFile): readonly string[] {
    return [...new Set(names.flatMap((name) => this.named(name)))].filter((path) => path !== file.path);
  }

  /** From where a name is counted, and where the site lies, only who fetches it knows: one of the two ends as the other does. */
  private named(name: string): readonly string[] {
    const end = `/${name}`;
    const all = this.changed.get(fileNameOf(name)) ?? [];
    return all.flatMap(({ path, whole }) => (whole.endsWith(end) || end.endsWith(whole) ? [path] : []));
  }
}

/** Pages that others surely show, each with those that do. */
export function shownElsewhere(site: Site): ReadonlyMap<string, readonly string[]> {
  const pages = pagesOf(site);
  const takenIn = new TakenIn(
    site,
    pages.map(({ path }) => path),
  );
  const showing = new Map<string, string[]>();
  for (const page of pages)
    for (const path of takenIn.surelyOf(page)) showing.set(path, [...(showing.get(path) ?? []), page.path]);
  return showing;
}

function byName<T>(list: readonly T[], nameOf: (one: T) => string): ReadonlyMap<string, readonly T[]> {
  const out = new Map<string, T[]>();
  for (const one of list) {
    const same = out.get(nameOf(one));
    if (same) same.push(one);
    else out.set(nameOf(one), [one]);
  }
  return out;
}

const known = new WeakMap<SiteFile, PageNames>();

function namesIn(file: SiteFile, read: (text: string, path: string) => PageNames): PageNames {
  let names = known.get(file);
  if (!names) known.set(file, (names = read(file.text ?? asciiText(file.bytes), file.path)));
  return names;
}

/** Whether a script asks for pages by names it says. */
export const asksByName = (script: SiteFile): boolean => namesIn(script, namesInScript).fetched.length > 0;

const words = 'is shown in this page as well, by its server or a script, and may look otherwise there.';

export const takenInDoubt = (path: string): Doubt => ({ sentence: `What is in ${path} ${words}`, elements: [] });

/** Whether that is all there is to say: nothing that is done to the page itself helps. */
export const isTakenInAlone = ({
  verdict,
  doubts,
}: {
  readonly verdict: string;
  readonly doubts: readonly Doubt[];
}): boolean => verdict === 'unsure' && doubts.length > 0 && doubts.every(({ sentence }) => sentence.endsWith(words));
