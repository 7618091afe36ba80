import type { ElementNode } from '../page/nodes.ts';
import type { PageTree } from '../page/parsePage.ts';
import { isTemplated } from '../source/templates.ts';
import type { Site } from '../source/site.ts';
import { nothing, type ScriptFacts } from './scriptFacts.ts';

/** Where a server or a template writes into a page's markup. */
export interface ServerCode {
  /** The first place: UTF-16 offset in the page. */
  readonly start: number;
  /** Places in order where what is written may be a sheet or a link to one: all but a class or an ID. */
  readonly sheets: readonly number[];
}

/**
 * The places of a page where something else is written when it is sent: `<!--#include …-->`, `<?php … ?>`, `<% … %>`,
 * `{{ … }}`, `{% … %}`, or attributes, a class or ID made of these. What is shown as text about such languages (`pre`, `code`) is none.
 * Common practice of servers and template languages.
 */
export function serverCode(page: PageTree): ServerCode | undefined {
  if (!isTemplated(page.text)) return undefined;
  const sheets = page.comments.flatMap(({ value, start }) => (isWrittenComment(value) ? [start] : []));
  sheets.push(...page.elements.filter(isWrittenInto).map(({ start }) => start));
  const named = page.elements.filter(isNamedThere);
  const starts = [...sheets, ...named.map(({ start }) => start)];
  if (starts.length === 0) return undefined;
  return { start: Math.max(0, Math.min(...starts)), sheets: sheets.sort((a, b) => a - b) };
}

/** Its class or ID, or whole attributes (`<td <?= $more ?>>`) are written there. */
const isNamedThere = (element: ElementNode): boolean =>
  element.attributes.some(({ name, value }) => isTemplated(name) || (/^(class|id)$/.test(name) && isTemplated(value)));

/** `<?php … ?>` and `<!--#include …-->` are comments to a parser of HTML; `<?xml …?>` says how the file is written. */
const isWrittenComment = (value: string): boolean =>
  /^\?(?!xml\b)/i.test(value) ||
  /^\s*#\s*(include|exec|echo|if|elif|else|endif|set|printenv|flastmod|fsize)\b/i.test(value);

const shownAsText = /^(pre|code|kbd|samp|tt|xmp|listing|plaintext|textarea|script|style|title|option)$/;

/** Its text is written by a template, and is not there to show one. */
const isWrittenInto = (element: ElementNode): boolean =>
  element.children.some((child) => child.type === 'text' && /<%|\{\{|\{%/.test(child.value)) && !isShownAsText(element);

function isShownAsText(element: ElementNode): boolean {
  for (let one: ElementNode['parent'] = element; one?.type === 'element'; one = one.parent)
    if (shownAsText.test(one.tag)) return true;
  return false;
}

const known = new WeakMap<Site, ScriptFacts>();

/** What is written there may be elements of any name that some rule of the site asks for. */
export function servedFacts(site: Site): ScriptFacts {
  let facts = known.get(site);
  if (!facts) known.set(site, (facts = { ...nothing, makes: true, words: wordsOfRules(site) }));
  return facts;
}

function wordsOfRules(site: Site): ReadonlySet<string> {
  const words = new Set<string>();
  const add = (text: string): void => {
    for (const word of text.match(/[\p{L}\p{N}_-]+/gu) ?? []) words.add(word);
  };
  for (const { kind, text = '' } of site.files.values()) {
    if (kind === 'sheet') add(text);
    else if (kind === 'page') for (const [, block] of text.matchAll(/<style\b[^>]*>(.*?)<\/style/gis)) add(block!);
  }
  return words;
}
