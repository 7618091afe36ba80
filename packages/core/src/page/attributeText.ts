import { decodeHTMLAttribute } from 'entities';

/**
 * Where the character at `offset` of an attribute's decoded value stands in the attribute as written (`style="a&amp;b"`),
 * counted from its start.
 *
 * HTML Standard, "Attributes" and "Named character references".
 */
export function offsetInAttribute(written: string, offset: number): number {
  const head = /^[^=]*=[\t\n\f\r ]*(["']?)/.exec(written);
  if (!head) return 0;
  let at = head[0].length;
  for (let decoded = 0; decoded < offset && at < written.length;) {
    const reference =
      written[at] === '&' ? /^&(?:#x?[0-9a-f]+|[a-z][a-z0-9]*);?/i.exec(written.slice(at, at + 40)) : null;
    const value = reference ? decodeHTMLAttribute(reference[0]) : '';
    if (reference && value !== reference[0]) {
      decoded += value.length;
      at += reference[0].length;
    } else {
      // the parser reads CR LF as one line feed
      at += written.startsWith('\r\n', at) ? 2 : 1;
      decoded++;
    }
  }
  return at;
}
