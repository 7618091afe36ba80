import { fileNameOf } from '../source/sitePath.ts';
import { decodePath } from '../values/urls.ts';

/** Names of pages a file says, with as much of their paths as it says, in lower case. */
export interface PageNames {
  /** What the server takes in. */
  readonly included: readonly string[];
  /** What a script here asks for. */
  readonly fetched: readonly string[];
  /** All that a script here names. */
  readonly inScripts: readonly string[];
  /** What an attribute names that a script may read. */
  readonly inAttributes: readonly string[];
  /** Whether a script here fetches anything. */
  readonly isFetching: boolean;
  /** The files of its scripts, without folders, in lower case. */
  readonly scripts: readonly string[];
  /** All files of scripts it names anywhere. */
  readonly scriptsNamed: readonly string[];
  /** Lists that its scripts may fetch: the names of their files. */
  readonly listsNamed: readonly string[];
  /** Whether a script here fetches where a link leads. */
  readonly followsLinks: boolean;
}

/** Called, handed on or taken by its name. */
const fetching =
  /\bfetch\b|XMLHttpRequest|ActiveXObject|\bresponseText\b|\.(?:load|get|post|getJSON)\b|[\w$)\]]\s*\[\s*["'`](?:load|get|post)["'`]\s*\]|\bajax\b|\baxios\b|\{[\w\s,:$]{0,100}\b(?:get|post|load)\b[\w\s,:$]{0,100}\}\s*=/;
/** Alone in its file: its functions are called where something is asked for, and found there. */
const library = /\.jQuery\s*=\s*\w+\.\$\s*=/;
const asking =
  /(?:\bfetch|\.(?:load|get|post|ajax)|\baxios)\s*\(\s*(?:\{[^{}]{0,200}?\burl\s*:\s*)?["'`][^"'`]{1,300}|\.open\s*\(\s*["'`]\w+["'`]\s*,\s*["'`][^"'`]{1,300}/gi;
const askFor = String.raw`(?:\bfetch|\.(?:load|get|post|ajax)|\baxios|\.open)\s*\([^;\n]{0,200}?`;
const hrefOf = String.raw`(?<!location)(?:\.href\b|(?:getAttribute|attr|prop)\(\s*["']href["']\s*\))`;
const asksForHref = new RegExp(`${askFor}${hrefOf}`);
const keptHref = new RegExp(String.raw`(?<![\w$])([\w$]{1,40})\s*=[^;,=]{0,80}?${hrefOf}`, 'g');
const inHandlers = /\son\w+\s*=\s*(?:"[^"]{0,2000}"|'[^']{0,2000}')/gi;
/** `data-page="…"`, and whatever stands on an element of an author's own name. */
const attributes =
  /\s(?:[a-z][\w:]*-[\w:-]*|include)\s*=\s*(?:"[^"]{0,500}"|'[^']{0,500}'|[^\s>"']{1,500})|<[a-z][a-z0-9]*-[a-z0-9-]*\s[^>]{0,500}>/gi;
const scriptFile = /<script\b[^>]{0,500}?\ssrc\s*=\s*["']?([^"'\s>]{1,500})/gi;

export function namesInPage(text: string): PageNames {
  const scripts = [...between(text, /<script\b/gi, '</script'), ...(text.match(inHandlers) ?? [])];
  const included = [
    ...between(text, /<!--\s{0,9}#\s{0,9}include\b/gi, '-->'),
    ...between(text, /<\?(?:php|=)/gi, '?>'),
    ...(text.match(closedMarks) ?? []),
  ];
  return {
    included: namesOf(included),
    fetched: askedFor(scripts),
    inScripts: namesOf(scripts),
    inAttributes: scripts.length === 0 ? [] : namesOf(text.match(attributes) ?? []),
    isFetching: scripts.some((script) => fetching.test(script)),
    scriptsNamed: namesOf([text], scriptEnding).map(fileNameOf),
    listsNamed: namesOf(scripts, listEnding).map(fileNameOf),
    followsLinks: scripts.some(followsLinks),
    scripts: [...text.matchAll(scriptFile)].map(([, url]) => fileNameOf(url!.replace(/[?#].*/s, '')).toLowerCase()),
  };
}

export function namesInScript(text: string, path: string): PageNames {
  const fetches = fetching.test(text);
  const isFetching = fetches && !(/jquery/i.test(fileNameOf(path)) && library.test(text));
  const texts = fetches ? [text] : [];
  return {
    included: [],
    fetched: askedFor(texts),
    inScripts: namesOf(texts),
    inAttributes: [],
    isFetching,
    scripts: [],
    scriptsNamed: [],
    listsNamed: namesOf(texts, listEnding).map(fileNameOf),
    followsLinks: isFetching && followsLinks(text),
  };
}

/** Where its links lead. */
export const namesInLinks = (text: string): readonly string[] => namesOf(text.match(links) ?? []);

const links = /\shref\s*=\s*(?:"[^"]{0,500}"|'[^']{0,500}'|[^\s>"']{1,500})/gi;

/** All pages that a list names. */
export const namesInList = (text: string): readonly string[] => namesOf([text]);

/** Asked for at once, or kept in a variable before. */
function followsLinks(script: string): boolean {
  if (!script.includes('href')) return false;
  if (asksForHref.test(script)) return true;
  const kept = [...new Set([...script.matchAll(keptHref)].map(([, name]) => name!.replaceAll('$', '\\$')))];
  return kept.length > 0 && new RegExp(String.raw`${askFor}(?<![\w$.])(?:${kept.join('|')})(?![\w$])`).test(script);
}

const askedFor = (scripts: readonly string[]): readonly string[] =>
  namesOf(scripts.flatMap((script) => script.match(asking) ?? []));

/** Where nobody closes them they are text: `{%` begins a comment in more than one language. */
const closedMarks =
  /<\?(?!xml|php|=)[^]{0,2000}?\?>|<%[^]{0,2000}?%>|\{%[^<>{}]{0,500}%\}|\{\{[^<{}]{0,500}\}\}|<[a-z]+:include\s[^<>]{0,500}>/gi;

/** What stands between such marks, one after the other; the last to the end where it is not closed. */
export function between(text: string, open: RegExp, close: string): readonly string[] {
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

const listEnding = /\.json\b/gi;
const scriptEnding = /\.m?js\b/gi;
const pageEnding = /\.(?:x?html?|shtml|php|asp|inc|tpl)\b/gi;
const longest = 300;
const beyond = /[\s"'`<>()=?#&;,|]/;
/** What stands in place of a part of a name: a variable, the host of an address. */
const unsaid = /[${}[\]*@:]/;

function namesOf(texts: readonly string[], ending = pageEnding): readonly string[] {
  const names = new Set<string>();
  for (const text of texts)
    for (const found of text.matchAll(ending)) names.add(nameEndingAt(text, found.index + found[0].length));
  return [...names];
}

/** Without what leads up to it, and without what a variable says of it. */
function nameEndingAt(text: string, end: number): string {
  let start = end;
  while (start > Math.max(0, end - longest) && !beyond.test(text[start - 1]!)) start--;
  const segments = decodePath(text.slice(start, end).replaceAll('\\/', '/')).toLowerCase().split('/');
  const known = segments.slice(segments.findLastIndex((segment) => unsaid.test(segment)) + 1);
  const last = segments.at(-1)!.split(unsaid).at(-1)!;
  return known.length === 0 ? last : known.filter((segment) => !/^\.{0,2}$/.test(segment)).join('/');
}
