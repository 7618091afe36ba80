import { encodingName } from './textCoding.ts';

/**
 * The encoding a browser reads a page in when the server names none, as the Encoding Standard's lower-case name.
 * Byte order mark, then a `meta` in the first 1024 bytes, then windows-1252.
 *
 * HTML Standard, "Determining the character encoding" and "Prescan a byte stream to determine its encoding".
 */
export function pageEncoding(bytes: Uint8Array): string {
  const mark = byteOrderMark(bytes);
  if (mark) return mark;
  const label = prescan(bytes.subarray(0, 1024));
  const name = label === undefined ? undefined : encodingName(label);
  if (name === undefined) return 'windows-1252';
  // a page that could be prescanned is not UTF-16; x-user-defined is taken as windows-1252
  if (name === 'utf-16le' || name === 'utf-16be') return 'utf-8';
  return name === 'x-user-defined' ? 'windows-1252' : name;
}

export function byteOrderMark(bytes: Uint8Array): 'utf-8' | 'utf-16le' | 'utf-16be' | undefined {
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return 'utf-8';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  return undefined;
}

function prescan(bytes: Uint8Array): string | undefined {
  let text = '';
  for (const byte of bytes) text += String.fromCharCode(byte);
  let at = 0;
  while (at < text.length) {
    if (text.startsWith('<!--', at)) {
      const end = text.indexOf('-->', at + 2);
      if (end < 0) return undefined;
      at = end + 3;
    } else if (/^<meta[\s/]/i.test(text.slice(at, at + 6))) {
      const read = readAttributes(text, at + 5);
      const label = labelOfMeta(read.attributes);
      if (label !== undefined && encodingName(label) !== undefined) return label;
      at = read.end + 1;
    } else if (/^<\/?[a-z]/i.test(text.slice(at, at + 3))) {
      const name = /^<\/?[^\s>]*/.exec(text.slice(at))![0];
      at = readAttributes(text, at + name.length).end + 1;
    } else if (/^<[!/?]/.test(text.slice(at, at + 2))) {
      const end = text.indexOf('>', at);
      if (end < 0) return undefined;
      at = end + 1;
    } else at++;
  }
  return undefined;
}

function labelOfMeta(attributes: ReadonlyMap<string, string>): string | undefined {
  const charset = attributes.get('charset');
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
