import { decodeHTML } from 'entities';
import { asciiText } from './asciiBytes.ts';
import { encodingName } from './textCoding.ts';

/**
 * The encoding a browser reads a page in when the server names none, as the Encoding Standard's lower-case name.
 * Byte order mark, then a `meta` in the first 1024 bytes or later in the head, then an XML declaration, then windows-1252.
 *
 * HTML Standard, "Determining the character encoding", "Prescan a byte stream to determine its encoding" and, for a later `meta`,
 * "Changing the encoding while parsing".
 */
export function pageEncoding(bytes: Uint8Array): string {
  const mark = byteOrderMark(bytes);
  if (mark) return mark;
  const first = asciiText(bytes.subarray(0, 1024));
  return encodingOf(prescan(first, 'bytes') ?? byTags(bytes) ?? xmlEncoding(first));
}

/** What the tree builder finds: mostly within the first bytes. */
const byTags = (bytes: Uint8Array): string | undefined =>
  prescan(asciiText(bytes.subarray(0, 2048)), 'tags') ??
  (bytes.length > 2048 ? prescan(asciiText(bytes.subarray(0, mostBytes)), 'tags') : undefined);

/**
 * Whether browsers agree on it: where a `meta` stands in the text of a script or the like, or is spelled with a character reference,
 * the standard looks at bytes, and Chromium at tags.
 */
export function isEncodingAgreed(bytes: Uint8Array): boolean {
  if (byteOrderMark(bytes)) return true;
  const first = asciiText(bytes.subarray(0, 1024));
  const looked = prescan(first, 'bytes');
  if (looked === undefined) return true;
  return encodingOf(looked) === encodingOf(byTags(bytes) ?? xmlEncoding(first));
}

function encodingOf(label: string | undefined): string {
  const name = label === undefined ? undefined : encodingName(label);
  if (name === undefined) return 'windows-1252';
  // a page that could be prescanned is not UTF-16; x-user-defined is taken as windows-1252
  if (name === 'utf-16le' || name === 'utf-16be') return 'utf-8';
  return name === 'x-user-defined' ? 'windows-1252' : name;
}

/** HTML Standard, "Get an XML encoding". */
function xmlEncoding(text: string): string | undefined {
  const label = /^<\?xml[^>]*?\sencoding\s*=\s*(?:"([^">]*)"|'([^'>]*)')/.exec(text);
  return label ? (label[1] ?? label[2]) : undefined;
}

export function byteOrderMark(bytes: Uint8Array): 'utf-8' | 'utf-16le' | 'utf-16be' | undefined {
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return 'utf-8';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  return undefined;
}

const headTags = /^<\/?(html|head|meta|title|link|style|script|noscript|base|object)$/i;
const rawTags = /^<(script|style|title|textarea|xmp|iframe|noembed|noframes|template)$/i;
/** No head is longer. */
const mostBytes = 200_000;

/** `tags`: as the tree builder sees them, through the whole head; else every byte that looks like one. */
function prescan(text: string, way: 'bytes' | 'tags'): string | undefined {
  let lower: string | undefined;
  let at = 0;
  let inHead = true;
  while (at < text.length && (way === 'bytes' || at < 1024 || inHead)) {
    if (text.startsWith('<!--', at)) {
      const end = text.indexOf('-->', at + 2);
      if (end < 0) return undefined;
      at = end + 3;
    } else if (/^<meta[\s/]/i.test(text.slice(at, at + 6))) {
      const read = readAttributes(text, at + 5);
      // a tag cut short says nothing
      if (read.end >= text.length) return undefined;
      const label = labelOfMeta(read.attributes, way);
      if (label !== undefined && encodingName(label) !== undefined) return label;
      at = read.end + 1;
    } else if (/^<\/?[a-z]/i.test(text.slice(at, at + 3))) {
      namePattern.lastIndex = at;
      const name = namePattern.exec(text)![0];
      inHead &&= headTags.test(name) && !/^<\/head$/i.test(name);
      at = readAttributes(text, at + name.length).end + 1;
      const raw = way === 'tags' ? rawTags.exec(name) : null;
      if (raw) {
        const end = (lower ??= text.toLowerCase()).indexOf(`</${raw[1]!.toLowerCase()}`, at);
        at = end < 0 ? text.length : end;
      }
    } else if (/^<[!/?]/.test(text.slice(at, at + 2))) {
      const end = text.indexOf('>', at);
      if (end < 0) return undefined;
      at = end + 1;
    } else {
      const next = text.indexOf('<', at + 1);
      at = next < 0 ? text.length : next;
    }
  }
  return undefined;
}

const namePattern = /<\/?[^\s>/]*/y;

function labelOfMeta(attributes: ReadonlyMap<string, string>, way: 'bytes' | 'tags'): string | undefined {
  const written = attributes.get('charset');
  const charset = written !== undefined && way === 'tags' ? decodeHTML(written) : written;
  if (charset !== undefined) return charset;
  if (attributes.get('http-equiv')?.toLowerCase() !== 'content-type') return undefined;
  return labelInContent(attributes.get('content') ?? '');
}

/** HTML Standard, "Extracting a character encoding from a meta element". */
function labelInContent(content: string): string | undefined {
  const found = /charset\s*=\s*(?:"([^"]*)"|'([^']*)'|([^\s;"']+))/i.exec(content);
  return found?.[1] ?? found?.[2] ?? found?.[3];
}

function readAttributes(text: string, from: number): { attributes: Map<string, string>; end: number } {
  const attributes = new Map<string, string>();
  const pattern = /[\s/]*(?:>|([^\s/>=][^\s/>=]*)(?:\s*=\s*(?:"([^"]*)"|'([^']*)'|([^\s>"']?[^\s>]*)))?)/y;
  let at = from;
  for (;;) {
    pattern.lastIndex = at;
    const found = pattern.exec(text);
    if (!found) return { attributes, end: text.length };
    at = pattern.lastIndex;
    if (found[1] === undefined) return { attributes, end: at - 1 };
    const name = found[1].toLowerCase();
    if (!attributes.has(name)) attributes.set(name, found[2] ?? found[3] ?? found[4] ?? '');
  }
}
