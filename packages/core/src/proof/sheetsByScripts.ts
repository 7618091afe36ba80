import { attributeOf, type ElementNode } from '../page/nodes.ts';
import { textContent, type PageTree } from '../page/parsePage.ts';
import { readDifferently } from '../page/readDifferently.ts';
import type { LinkedSource } from '../page/styleSources.ts';
import { hasScripts, pageScripts, type PageScript } from '../scripts/pageScripts.ts';
import { mayEndName, mayName, sheetNamesIn } from '../scripts/sheetNames.ts';
import { trimmed } from '../source/space.ts';
import type { PageState } from './explainDifference.ts';
import { templateText } from './pairElements.ts';
import { between } from './pageNames.ts';
import type { Doubt } from './proof.ts';
import type { Others } from './throughOthers.ts';

/**
 * Sheets that are other files now and that the page may use though none of its links does here: its scripts say their names, or find them
 * in the page, or a link says this site's own address. HTML Standard, "The link element"; CSSOM; CSS Cascading and Inheritance Level 5,
 * "Importing Style Sheets".
 */
export function sheetsByScripts({ cascade, site }: PageState, { sheets, created }: Others): readonly Doubt[] {
  const changed = [...sheets, ...created];
  if (changed.length === 0) return [];
  const { tree, path, rules } = cascade;
  const out = new Set<string>();
  for (const { target } of rules.unread)
    for (const sheet of changed)
      if (target.kind === 'remote' && mayBeHere(target.url, sheet))
        out.add(`The page links ${trimmed(target.url)}; where that is this site, it is another file now.`);
  for (const { start, end } of readDifferently(tree))
    for (const sheet of changed)
      if (sheetNamesIn(tree.text.slice(start, end)).some((said) => mayName(said, sheet)))
        out.add(`Browsers do not agree on what a select holds: some take ${sheet}, which is another file now.`);
  if (!hasScripts(tree)) return doubtsOf(out);
  const scripts = pageScripts(tree, path, rules.sources, site).filter(({ served }) => !served);
  const taken = rules.sources.sheets.filter(isTaken);
  // which of those a script makes the name of, only those come into question that no link takes
  const apart = sheets.filter((sheet) => !taken.some(({ target }) => target.kind === 'site' && target.path === sheet));
  for (const { facts, path: file, line } of scripts) {
    if (facts.isData) continue;
    const named = changed.filter((sheet) => facts.sheets.some((said) => mayName(said, sheet)));
    const ended = apart.filter((sheet) => facts.sheets.some((said) => mayEndName(said, sheet)));
    for (const sheet of [...named, ...ended])
      out.add(`${file}, line ${line}: a script may load ${sheet}, which is another file now.`);
  }
  const found = scripts.some(mayLoad) ? namesFor(tree, taken, scripts) : [];
  for (const sheet of changed)
    if (found.some((said) => mayName(said, sheet)))
      out.add(`The page says ${sheet} where a script may find it, and that is another file now.`);
  return doubtsOf(out);
}

const doubtsOf = (sentences: ReadonlySet<string>): readonly Doubt[] =>
  [...sentences].map((sentence) => ({ sentence, elements: [] }));

/** A whole address; or one with a scheme and no host, which is this site's where its scheme is the same. URL Standard, "scheme state". */
function mayBeHere(url: string, sheet: string): boolean {
  const bare = url.replace(/[?#].*$/s, '');
  if (/^https?:[^/]/i.test(bare)) return mayName(bare.replace(/^https?:/i, ''), sheet);
  return bare.endsWith(`/${sheet}`) || bare.endsWith(` ${sheet}`);
}

const isTaken = (source: { readonly kind: string; readonly idle: unknown }): source is LinkedSource =>
  source.kind === 'linked' && source.idle === undefined;

/** What a script says that turns something of the page into a sheet. */
const switches = ['rel', 'relList', 'stylesheet', 'disabled', 'media', 'type', 'href', 'onload'];

const mayLoad = ({ facts }: PageScript): boolean =>
  !facts.isData &&
  (facts.unreadable ||
    facts.makes ||
    facts.touches.some(({ what }) => what.kind === 'sheets') ||
    switches.some((word) => facts.words.has(word)));

/** Names in data, attributes, and what is kept from being shown; not in the text people read, nor in links that browsers follow. */
function namesFor(tree: PageTree, taken: readonly LinkedSource[], scripts: readonly PageScript[]): readonly string[] {
  const out = scripts.flatMap(({ facts }) => (facts.isData ? facts.sheets : []));
  const links = new Set(taken.map(({ element }) => element));
  const followed = taken.map(({ reference }) => reference);
  const isFollowed = (element: ElementNode): boolean =>
    links.has(element) || (isHint(element) && followed.includes(attributeOf(element, 'href') ?? ''));
  for (const element of tree.elements) {
    if (element.tag === 'script' || isFollowed(element)) continue;
    for (const { value } of element.attributes) out.push(...sheetNamesIn(value));
    if (element.tag === 'textarea') out.push(...sheetNamesIn(textContent(element)));
    if (element.tag === 'template') out.push(...sheetNamesIn(templateText(element, tree.text)));
  }
  if (scripts.some(({ facts }) => readsComments.some((word) => facts.words.has(word))))
    for (const comment of between(tree.text, /<!--/g, '-->')) out.push(...sheetNamesIn(comment));
  return out;
}

const readsComments = ['nodeType', 'COMMENT_NODE', 'createNodeIterator', 'SHOW_COMMENT'];

/** A link that has a sheet fetched early, and no more. HTML Standard, "Link type preload". */
const isHint = (element: ElementNode): boolean =>
  element.tag === 'link' &&
  /^(preload|prefetch)$/i.test(attributeOf(element, 'rel') ?? '') &&
  !element.attributes.some(({ name }) => name.startsWith('on'));
