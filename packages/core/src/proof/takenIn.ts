import { asciiText } from '../source/asciiBytes.ts';
import { pagesOf, type Site, type SiteFile } from '../source/site.ts';
import { fileNameOf } from '../source/sitePath.ts';
import type { Doubt } from './proof.ts';

/**
 * Pages whose contents another one may show: its server includes them, or a script fetches them by a name that it or an attribute says.
 * HTML Standard, "Dynamic markup insertion"; Fetch; server-side includes and templates as common practice has them. What a script
 * fetches by a name it makes is not followed, nor is a link whose page it fetches.
 */
export class TakenIn {
  private readonly scripts: readonly SiteFile[];
  private readonly changed: ReadonlyMap<string, readonly string[]>;

  /** `changed`: paths of the pages whose bytes differ. */
  constructor(site: Site, changed: readonly string[]) {
    const pages = new Set(pagesOf(site).map(({ path }) => path));
    const byName = new Map<string, string[]>();
    for (const path of changed.filter((one) => pages.has(one))) {
      const name = fileNameOf(path).toLowerCase();
      byName.set(name, [...(byName.get(name) ?? []), path]);
    }
    this.changed = byName;
    this.scripts = byName.size === 0 ? [] : [...site.files.values()].filter(({ path }) => /\.m?js$/i.test(path));
  }

  /** The changed pages that this one may show. */
  of(file: SiteFile): readonly string[] {
    if (this.changed.size === 0 || file.text === undefined) return [];
    const own = namesIn(file, namesInPage);
    const names = new Set(own.always);
    const scripts = this.scripts.filter(({ path }) => file.text!.includes(fileNameOf(path)));
    const isFetching = own.isFetching || scripts.some((script) => namesIn(script, namesInScript).isFetching);
    if (isFetching) for (const name of own.fetched) names.add(name);
    for (const script of scripts) for (const name of namesIn(script, namesInScript).fetched) names.add(name);
    return [...names].flatMap((name) => this.changed.get(name) ?? []).filter((path) => path !== file.path);
  }
}

/** Names of pages a file says, in lower case. */
interface Names {
  /** Where they are taken in without a script of the page. */
  readonly always: readonly string[];
  /** Where a script has to fetch them. */
  readonly fetched: readonly string[];
  readonly isFetching: boolean;
}

const known = new WeakMap<SiteFile, Names>();

function namesIn(file: SiteFile, read: (text: string) => Names): Names {
  let names = known.get(file);
  if (!names) known.set(file, (names = read(file.text ?? asciiText(file.bytes))));
  return names;
}

const fetching =
  /\bfetch\s*\(|XMLHttpRequest|ActiveXObject|\bresponseText\b|\.load\s*\(|\.get\s*\(|\bajax\s*\(|\baxios\b/i;
const pageName = /[\w.~-]+\.(?:x?html?|shtml|php|asp|inc|tpl)\b/gi;
const inHandlers = /\son\w+\s*=\s*(?:"[^"]{0,2000}"|'[^']{0,2000}')/gi;
/** `data-page="…"`, and whatever stands on an element of an author's own name. */
const inAttributes = /\s(?:[a-z][\w:]*-[\w:-]*|include)\s*=\s*(?:"[^"]{0,500}"|'[^']{0,500}'|[^\s>"']{1,500})|<[a-z][a-z0-9]*-[a-z0-9-]*\s[^>]{0,500}>/gi; // prettier-ignore

const namesOf = (texts: readonly string[]): readonly string[] =>
  [...new Set(texts.flatMap((text) => text.match(pageName) ?? []).map((name) => name.toLowerCase()))]; // prettier-ignore

function namesInPage(text: string): Names {
  const scripts = [...between(text, /<script\b/gi, '</script'), ...(text.match(inHandlers) ?? [])];
  const isFetching = scripts.some((script) => fetching.test(script));
  const always = namesOf([
    ...between(text, /<!--\s{0,9}#\s{0,9}include\b/gi, '-->'),
    ...between(text, /<\?(?!xml)/g, '?>'),
    ...between(text, /<%/g, '%>'),
    ...between(text, /\{%/g, '%}'),
  ]);
  // by which library attributes are read nobody can tell
  const said = scripts.length === 0 ? [] : namesOf(text.match(inAttributes) ?? []);
  return { always: [...always, ...said], fetched: namesOf(scripts), isFetching };
}

/** What stands between such marks, one after the other; the last to the end where it is not closed. */
function between(text: string, open: RegExp, close: string): readonly string[] {
  const out: string[] = [];
  let from = 0;
  for (const { index } of text.matchAll(open)) {
    if (index < from) continue;
    const end = text.indexOf(close, index);
    from = end < 0 ? text.length : end + close.length;
    out.push(text.slice(index, from));
  }
  return out;
}

function namesInScript(text: string): Names {
  const isFetching = fetching.test(text);
  return { always: [], fetched: isFetching ? namesOf([text]) : [], isFetching };
}

const words = 'is shown in this page as well, by its server or a script, and may look otherwise there.';

export const takenInDoubt = (path: string): Doubt => ({ sentence: `What is in ${path} ${words}`, elements: [] });

/** Whether that is all there is to say: nothing that is done to the page itself helps. */
export const isTakenInAlone = ({ verdict, doubts }: { readonly verdict: string; readonly doubts: readonly Doubt[] }): boolean =>
  verdict === 'unsure' && doubts.length > 0 && doubts.every(({ sentence }) => sentence.endsWith(words)); // prettier-ignore
