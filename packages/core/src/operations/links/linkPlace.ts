import { Type } from '@sinclair/typebox';
import { closed, fields } from '../operationType.ts';
import type { ElementNode } from '../../page/nodes.ts';
import type { EmbeddedSource, LinkedSource } from '../../page/styleSources.ts';
import { lineEndOf } from '../../source/lineEnds.ts';
import { indentationAt, wholeLines } from '../../source/removal.ts';
import { textOf, type Edit } from '../../source/span.ts';
import type { OpenPage } from '../../survey/openPage.ts';

/**
 * Where among a page's sources a link stands. `before` and `after` name another sheet; where a page does not link it, the link
 * goes before the blocks.
 */
export type LinkPlace =
  | { readonly at: 'first' | 'before-blocks' | 'last' | 'after-title' | 'head-end' }
  | { readonly at: 'before' | 'after'; readonly sheet: string };

export const LinkPlaceSchema = Type.Union([
  Type.Object(
    {
      at: Type.Union([
        Type.Literal('first'),
        Type.Literal('before-blocks'),
        Type.Literal('last'),
        Type.Literal('after-title'),
        Type.Literal('head-end'),
      ]),
    },
    closed,
  ),
  Type.Object({ at: Type.Union([Type.Literal('before'), Type.Literal('after')]), sheet: fields.sheet }, closed),
]);

export function describePlace(place: LinkPlace): string {
  switch (place.at) {
    case 'first':
      return 'before all other sources';
    case 'before-blocks':
      return 'before the embedded block';
    case 'last':
      return 'behind all other sources';
    case 'after-title':
      return 'behind the title';
    case 'head-end':
      return 'to the end of the head';
    case 'before':
      return `before ${place.sheet}`;
    case 'after':
      return `behind ${place.sheet}`;
  }
}

type Source = LinkedSource | EmbeddedSource;

/** Links of the page that lead to the sheet, idle ones too. */
export const linksTo = ({ sources }: OpenPage, sheet: string): readonly LinkedSource[] =>
  sources.sheets.filter(
    (s): s is LinkedSource =>
      s.kind === 'linked' && s.span.start >= 0 && s.target.kind === 'site' && s.target.path === sheet,
  );

/** The edit that writes a tag at a place. */
export function insertTag(page: OpenPage, tag: string, place: LinkPlace): Edit {
  const anchor = anchorOf(page, place, undefined);
  if (anchor) return atAnchor(page.text, tag, anchor);
  return intoHead(page, tag, place.at === 'head-end');
}

/** The edits that take a link of the page to another place; none when it stands there already. */
export function moveTag(page: OpenPage, link: LinkedSource, place: LinkPlace): readonly Edit[] {
  const written = writtenSources(page);
  const anchor = anchorOf(page, place, link);
  if (!anchor) return [];
  const own = written.indexOf(link);
  const other = anchor.source ? written.indexOf(anchor.source) : -1;
  const stands =
    anchor.source === undefined
      ? own === written.length - 1
      : place.at === 'before-blocks'
        ? own < other
        : other === own + (anchor.before ? 1 : -1);
  if (stands) return [];
  const edit = atAnchor(page.text, textOf(page.text, link.span), anchor);
  return [edit, { span: wholeLines(page.text, link.span), text: '' }];
}

/** Something written that a tag goes before or after. */
interface Anchor {
  readonly source: Source | undefined;
  readonly span: { readonly start: number; readonly end: number };
  readonly before: boolean;
}

const writtenSources = ({ sources }: OpenPage): readonly Source[] =>
  sources.sheets.filter((s) => s.span.start >= 0 && !(s.kind === 'embedded' && s.foreign));

function anchorOf(page: OpenPage, place: LinkPlace, moving: LinkedSource | undefined): Anchor | undefined {
  const written = writtenSources(page).filter((s) => s !== moving);
  const by = (source: Source | undefined, before: boolean): Anchor | undefined =>
    source && { source, span: source.span, before };
  const beforeBlocks = (): Anchor | undefined =>
    by(
      written.find((s) => s.kind === 'embedded'),
      true,
    ) ?? by(written.at(-1), false);
  switch (place.at) {
    case 'first':
      return by(written[0], true);
    case 'before-blocks':
      return beforeBlocks();
    case 'last':
      return by(written.at(-1), false);
    case 'head-end':
      return undefined;
    case 'after-title': {
      const title = page.tree.elements.find((e) => e.tag === 'title' && e.namespace === 'html' && e.start >= 0);
      return title ? { source: undefined, span: title, before: false } : by(written[0], true);
    }
    case 'before':
    case 'after': {
      const others = linksTo(page, place.sheet).filter((s) => s !== moving);
      return by(place.at === 'before' ? others[0] : others.at(-1), place.at === 'before') ?? beforeBlocks();
    }
  }
}

function atAnchor(text: string, tag: string, { span, before }: Anchor): Edit {
  return before ? beforeSpan(text, tag, span.start) : afterSpan(text, tag, span);
}

/** On a line of its own, or on the same line where the head is written on one. */
function beforeSpan(text: string, tag: string, at: number): Edit {
  const opensLine = /(?:^|[\r\n])[\t ]*$/.test(text.slice(Math.max(0, at - 200), at));
  const written = opensLine ? tag + lineEndOf(text) + indentationAt(text, at) : tag;
  return { span: { start: at, end: at }, text: written };
}

function afterSpan(text: string, tag: string, { start, end }: { readonly start: number; readonly end: number }): Edit {
  const closesLine = /^[\t ]*(?:[\r\n]|$)/.test(text.slice(end, end + 200));
  const written = closesLine ? lineEndOf(text) + indentationAt(text, start) + tag : tag;
  return { span: { start: end, end }, text: written };
}

/** A page without sources: after the last title or meta, at the end of the head, or where the head would begin. */
function intoHead({ text, tree }: OpenPage, tag: string, atEnd: boolean): Edit {
  const head = tree.elements.find((e) => e.tag === 'head' && e.namespace === 'html');
  if (atEnd && head && head.endTagStart >= 0) {
    const at = head.endTagStart;
    const indent = indentationAt(text, at);
    const last = lastWritten(head);
    const own = last ? indentationAt(text, last.start) : indent;
    const edit = beforeSpan(text, tag, at);
    // the end tag's indentation stands before it already
    return edit.text === tag ? edit : { ...edit, text: own.slice(indent.length) + edit.text };
  }
  const last = head && lastWritten(head, atEnd ? undefined : /^(title|meta|base)$/);
  if (last) return afterSpan(text, tag, last);
  const html = tree.elements.find((e) => e.tag === 'html' && e.namespace === 'html');
  const opened = head && head.start >= 0 ? head : html && html.start >= 0 ? html : undefined;
  if (opened) return afterSpan(text, tag, { start: opened.start, end: opened.startTagEnd });
  // no head and no html tag: what comes first in the page, behind the doctype and comments, opens the head
  const at = startOfContent(text);
  return { span: { start: at, end: at }, text: tag + lineEndOf(text) };
}

function lastWritten(head: ElementNode, only?: RegExp): { start: number; end: number } | undefined {
  const last = head.children.findLast(
    (c) => c.type === 'element' && c.start >= 0 && c.end > c.start && (!only || only.test(c.tag)),
  );
  return last?.type === 'element' ? { start: last.start, end: last.end } : undefined;
}

/** Behind a byte order mark, the doctype, comments and the like, and white space. */
const startOfContent = (text: string): number =>
  /^\ufeff?(?:[\t\n\f\r ]+|<!--[^]*?-->|<\?[^>]*>|<![^>]*>)*/.exec(text)![0].length;
