import { attributeOf, type ElementNode } from '../page/nodes.ts';
import type { PageTree } from '../page/parsePage.ts';
import { isTemplated } from '../source/templates.ts';
import type { Site } from '../source/site.ts';
import { nothing, type ScriptFacts } from './scriptFacts.ts';

/** Where a server or a template writes into a page's markup. */
export interface ServerCode {
  /** The first place: UTF-16 offset in the page. */
  readonly start: number;
  /** The places before the page's body, in order: what is written there may be a sheet or a link to one. */
  readonly inHead: readonly number[];
}

/**
 * The places of a page where something else is written when it is sent: `<!--#include …-->`, `<?php … ?>`, `<% … %>`,
 * `{{ … }}`, `{% … %}`, or a class or ID made of these. What is shown as text about such languages (`pre`, `code`) is none.
 * Common practice of servers and template languages.
 */
export function serverCode(page: PageTree): ServerCode | undefined {
  if (!isTemplated(page.text)) return undefined;
  const body = page.elements.find(({ tag }) => tag === 'body' || tag === 'frameset');
  const bodyStart = body && body.start >= 0 ? body.start : page.text.length;
  const starts = page.comments.flatMap(({ value, start }) => (isWrittenComment(value) ? [start] : []));
  for (const element of page.elements) if (isWrittenElement(element)) starts.push(element.start);
  if (starts.length === 0) return undefined;
  starts.sort((a, b) => a - b);
  return { start: Math.max(starts[0]!, 0), inHead: starts.filter((start) => start < bodyStart) };
}

/** `<?php … ?>` and `<!--#include …-->` are comments to a parser of HTML; `<?xml …?>` says how the file is written. */
const isWrittenComment = (value: string): boolean =>
  /^\?(?!xml\b)/i.test(value) ||
  /^\s*#\s*(include|exec|echo|if|elif|else|endif|set|printenv|flastmod|fsize)\b/i.test(value);

const shownAsText = /^(pre|code|kbd|samp|tt|xmp|listing|plaintext|textarea|script|style|title|option)$/;

function isWrittenElement(element: ElementNode): boolean {
  if (isTemplated(attributeOf(element, 'class') ?? '') || isTemplated(attributeOf(element, 'id') ?? '')) return true;
  const says = element.children.some((child) => child.type === 'text' && /<%|\{\{|\{%/.test(child.value));
  return says && !isShownAsText(element);
}

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
