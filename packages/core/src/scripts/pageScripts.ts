import { attributeOf, type ElementNode } from '../page/nodes.ts';
import { textContent, type PageTree } from '../page/parsePage.ts';
import { baseAt, type StyleSources } from '../page/styleSources.ts';
import { placeOf } from '../source/span.ts';
import type { Site } from '../source/site.ts';
import { decodeText } from '../source/textCoding.ts';
import { resolveReference, siteBase, type Base, type Target } from '../values/urls.ts';
import { readScript } from './readScript.ts';
import { sheetNamesIn } from './sheetNames.ts';
import { servedFacts, serverCode, type ServerCode } from './serverCode.ts';
import type { ScriptFacts } from './scriptFacts.ts';

/** What addresses of scripts count from. */
type ScriptBases = Pick<StyleSources, 'base' | 'ownBase' | 'baseElement'>;

/** A script of a page: its own, one of the site it loads, or what an event attribute holds. */
export interface PageScript {
  readonly facts: ScriptFacts;
  /** The file it is written in. */
  readonly path: string;
  /** The line in that file on which its first line stands, from 1. */
  readonly line: number;
  /** The element whose event attribute it is. */
  readonly of: ElementNode | undefined;
  readonly text: string;
  /** It is no script: a server writes something there when the page is sent. */
  readonly served?: ServerCode;
}

const scriptType = /^((text|application)\/(x-)?(java|ecma|j|live)script[\d.]*|module)?$/i;

/** Whether a page runs scripts at all. */
export const hasScripts = ({ elements, text }: PageTree): boolean =>
  /<script|on[a-z]{3,}\s*=|script:|&#/i.test(text) &&
  elements.some(({ tag, attributes }) => tag === 'script' || attributes.some(isHandler));

const isHandler = ({ name, value }: { readonly name: string; readonly value: string }): boolean =>
  (name.startsWith('on') && name.length > 2) || /^[\0-\x20]*javascript:/i.test(value);

/**
 * All scripts of a page that are here, modules they load included, in order, behind what a server writes into it. Scripts of
 * other sites and missing ones are not.
 *
 * HTML Standard, "The script element", "Event handler content attributes".
 */
export function pageScripts(page: PageTree, path: string, sources: ScriptBases, site: Site): readonly PageScript[] {
  const asked = lastAsked.get(page);
  if (asked?.site === site && asked.path === path && asked.sources === sources) return asked.scripts;
  const scripts = findScripts(page, path, sources, site);
  lastAsked.set(page, { site, path, sources, scripts });
  return scripts;
}

/** A proof asks for those of one page several times. */
const lastAsked = new WeakMap<
  PageTree,
  {
    readonly site: Site;
    readonly path: string;
    readonly sources: ScriptBases;
    readonly scripts: readonly PageScript[];
  }
>();

function findScripts(page: PageTree, path: string, sources: ScriptBases, site: Site): readonly PageScript[] {
  const out: PageScript[] = [];
  const served = serverCode(page);
  if (served)
    out.push({
      facts: servedFacts(site),
      path,
      line: placeOf(page.text, served.start).line,
      of: undefined,
      text: '',
      served,
    });
  if (!hasScripts(page)) return out;
  const seen = new Set<string>();
  const file = (reference: string, base: Base, kind: 'script' | 'module', depth: number): void => {
    const target = resolveReference(reference, base);
    const found = target.kind === 'site' ? site.files.get(target.path) : undefined;
    if (!found || seen.has(found.path) || depth > 50) return;
    seen.add(found.path);
    const text = found.text ?? decodeText(found.bytes, 'utf-8');
    const facts = factsOf(text, kind);
    out.push({ facts, path: found.path, line: 1, of: undefined, text });
    for (const next of facts.modules) file(next, siteBase(found.path), 'module', depth + 1);
    // an address in a script counts from the page
    for (const next of facts.files) file(next, sources.base, 'script', depth + 1);
  };
  for (const element of page.elements) {
    const line = (): number => placeOf(page.text, Math.max(element.start, 0)).line;
    if (element.tag === 'script') {
      const type = (attributeOf(element, 'type') ?? '').trim();
      const kind = /^module$/i.test(type) ? 'module' : 'script';
      const reference = referenceOf(element);
      if (reference !== undefined) file(reference, baseAt(sources, element), kind, 0);
      else {
        const text = textContent(element);
        const facts = scriptType.test(type) ? factsOf(text, kind) : dataFacts(text);
        out.push({ facts, path, line: line(), of: undefined, text });
        for (const next of facts.modules) file(next, baseAt(sources, element), 'module', 1);
        for (const next of facts.files) file(next, sources.base, 'script', 1);
      }
    }
    for (const attribute of element.attributes)
      if (isHandler(attribute)) {
        const text = attribute.value.replace(/^[\0-\x20]*javascript:/i, '');
        out.push({ facts: factsOf(text, 'handler'), path, line: line(), of: element, text });
      }
  }
  return out;
}

const referenceOf = (element: ElementNode): string | undefined =>
  attributeOf(element, 'src') ?? attributeOf(element, 'href') ?? attributeOf(element, 'xlink:href');

/** A block of data, or a template in a string, that scripts may use. */
const dataFacts = (text: string): ScriptFacts => ({
  touches: [],
  makes: /<[a-z]/i.test(text),
  words: new Set(text.match(/[\p{L}\p{N}_-]+/gu) ?? []),
  modules: [],
  files: [],
  sheets: sheetNamesIn(text),
  isData: true,
  unreadable: false,
});

const known = new Map<string, ScriptFacts>();

/** Pages share scripts: each is read once, the last thousand kept. */
function factsOf(text: string, kind: 'script' | 'module' | 'handler'): ScriptFacts {
  const key = `${kind} ${text}`;
  let facts = known.get(key);
  if (!facts) {
    if (known.size > 1000) known.clear();
    known.set(key, (facts = readScript(text, kind)));
  }
  return facts;
}

/** The scripts of a page without its tree: their texts, and what they load. */
export interface ScriptOutline {
  readonly texts: readonly { readonly text: string; readonly kind: 'script' | 'module' | 'handler' | 'data' }[];
  readonly loads: readonly { readonly target: Target; readonly kind: 'script' | 'module' }[];
  readonly base: Base;
  /** A server writes into the page. */
  readonly served: boolean;
}

/** Undefined for a page without scripts into which no server writes. */
export function scriptOutline(page: PageTree, sources: ScriptBases): ScriptOutline | undefined {
  const served = serverCode(page) !== undefined;
  if (!served && !hasScripts(page)) return undefined;
  const texts: ScriptOutline['texts'][number][] = [];
  const loads: ScriptOutline['loads'][number][] = [];
  for (const element of page.elements) {
    if (element.tag === 'script') {
      const type = (attributeOf(element, 'type') ?? '').trim();
      const kind = /^module$/i.test(type) ? 'module' : 'script';
      const reference = referenceOf(element);
      if (reference !== undefined) loads.push({ target: resolveReference(reference, baseAt(sources, element)), kind });
      else texts.push({ text: textContent(element), kind: scriptType.test(type) ? kind : 'data' });
    }
    for (const { name, value } of element.attributes)
      if (isHandler({ name, value }))
        texts.push({ text: value.replace(/^[\0-\x20]*javascript:/i, ''), kind: 'handler' });
  }
  return { texts, loads, base: sources.base, served };
}

/** What all scripts of the outline say, those they load included. */
export function outlineFacts({ texts, loads, base, served }: ScriptOutline, site: Site): readonly ScriptFacts[] {
  const out: ScriptFacts[] = served ? [servedFacts(site)] : [];
  const seen = new Set<string>();
  const add = (facts: ScriptFacts, from: Base, depth: number): void => {
    out.push(facts);
    for (const next of facts.modules) load(resolveReference(next, from), 'module', depth + 1);
    for (const next of facts.files) load(resolveReference(next, base), 'script', depth + 1);
  };
  const load = (target: Target, kind: 'script' | 'module', depth: number): void => {
    const found = target.kind === 'site' ? site.files.get(target.path) : undefined;
    if (!found || seen.has(found.path) || depth > 50) return;
    seen.add(found.path);
    add(factsOf(found.text ?? decodeText(found.bytes, 'utf-8'), kind), siteBase(found.path), depth);
  };
  for (const { target, kind } of loads) load(target, kind, 0);
  for (const { text, kind } of texts) add(kind === 'data' ? dataFacts(text) : factsOf(text, kind), base, 0);
  return out;
}
