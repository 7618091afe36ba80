import { trimmed, trimmedEnd } from '../../source/space.ts';
import type { ElementNode } from '../../page/nodes.ts';
import type { Edit } from '../../source/span.ts';

type Spans = NonNullable<ElementNode['attributeSpans']>;

/** The edits that put a class in place of an element's style attribute, in the tag's own quoting and case; undefined when the tag is not written. */
export const styleToClass = (text: string, spans: Spans, name: string): readonly Edit[] | undefined =>
  attributesToClass(text, spans, ['style'], name);

/** The same for any attributes: the class stands where the first was, or in the class attribute there is. */
export function attributesToClass(
  text: string,
  spans: Spans,
  gone: readonly string[],
  name: string,
): readonly Edit[] | undefined {
  const [first, ...others] = gone.flatMap((each) => spans[each] ?? []).sort((a, b) => a.startOffset - b.startOffset);
  if (!first) return undefined;
  const rest = others.map((one) => ({ span: withSpaceBefore(text, one.startOffset, one.endOffset), text: '' }));
  return [...rest, ...inPlaceOf(text, spans, first, name)];
}

function inPlaceOf(text: string, spans: Spans, style: Spans[string], name: string): readonly Edit[] {
  const written = text.slice(style.startOffset, style.endOffset);
  const own = spans['class'];
  if (!own) {
    const quote = /=[\t\n\f\r ]*(["'])/.exec(written)?.[1] ?? '"';
    const label = /^[A-Z]{3}/.test(written) ? 'CLASS' : 'class';
    return [{ span: { start: style.startOffset, end: style.endOffset }, text: `${label}=${quote}${name}${quote}` }];
  }
  const gone = { span: withSpaceBefore(text, style.startOffset, style.endOffset), text: '' };
  return [gone, inClass(text, own, name)];
}

/** `class` without a value, or quoted: the name goes at its end; bare, quotes come around it. */
function inClass(text: string, own: Spans[string], name: string): Edit {
  const there = text.slice(own.startOffset, own.endOffset);
  const head = /^[^=]*=[\t\n\f\r ]*(["']?)/.exec(there);
  if (!head) return { span: { start: own.endOffset, end: own.endOffset }, text: `="${name}"` };
  const quote = head[1]!;
  const value = there.slice(head[0].length, there.length - quote.length);
  const joined = trimmed(value) === '' ? name : `${trimmedEnd(value)} ${name}`;
  const span = { start: own.startOffset + head[0].length, end: own.endOffset - quote.length };
  return { span, text: quote === '' ? `"${joined}"` : joined };
}

function withSpaceBefore(text: string, start: number, end: number): { start: number; end: number } {
  let from = start;
  while (/[\t\n\f\r ]/.test(text[from - 1] ?? '')) from--;
  return { start: from, end };
}

/** The edit that gives an element one more class, in the tag's own quoting and case. */
export function addClass(
  text: string,
  element: Pick<ElementNode, 'start' | 'startTagEnd' | 'attributeSpans'>,
  name: string,
): Edit {
  const tag = text.slice(element.start, element.startTagEnd);
  const own = element.attributeSpans?.['class'];
  if (!own) {
    const at = element.start + /^<[^\t\n\f\r />]+/.exec(tag)![0].length;
    const single = /='/.test(tag) && !/="/.test(tag);
    const label = /^<[A-Z]/.test(tag) ? 'CLASS' : 'class';
    return { span: { start: at, end: at }, text: single ? ` ${label}='${name}'` : ` ${label}="${name}"` };
  }
  return inClass(text, own, name);
}

/** The edit that takes an attribute out of its tag, with the white space before it. */
export function dropAttribute(text: string, spans: Spans, name: string): Edit {
  const { startOffset, endOffset } = spans[name]!;
  return { span: withSpaceBefore(text, startOffset, endOffset), text: '' };
}

/** The edits that give an element another tag, in the case of its own; both its tags are written. */
export function renameTags(
  text: string,
  { tag, start, endTagStart }: Pick<ElementNode, 'tag' | 'start' | 'endTagStart'>,
  name: string,
): readonly Edit[] {
  return [start + 1, endTagStart + 2].map((at) => {
    const written = text.slice(at, at + tag.length);
    return {
      span: { start: at, end: at + tag.length },
      text: written === written.toUpperCase() ? name.toUpperCase() : name,
    };
  });
}
