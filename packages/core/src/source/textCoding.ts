// The two coders of the Encoding Standard are in every runtime core runs in (Node, workers, browsers); they compute only.
declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean; ignoreBOM?: boolean });
  readonly encoding: string;
  decode(input: Uint8Array): string;
}
declare class TextEncoder {
  encode(input: string): Uint8Array;
}

/** The Encoding Standard's name for a label, lower case, or undefined for an unknown label. */
export function encodingName(label: string): string | undefined {
  const known = notInNode.exec(label);
  if (known) return known[1] ? 'x-user-defined' : 'replacement';
  try {
    return new TextDecoder(label).encoding;
  } catch {
    return undefined;
  }
}

/** Encoding Standard, "Names and labels": the two encodings that no Node has, the second by its six labels. */
const notInNode =
  /^[\t\n\f\r ]*(?:(x-user-defined)|csiso2022kr|hz-gb-2312|iso-2022-(?:cn|cn-ext|kr)|replacement)[\t\n\f\r ]*$/i;

/** The text of the bytes, byte order mark kept as U+FEFF. Malformed sequences become U+FFFD. */
export function decodeText(bytes: Uint8Array, encoding: string): string {
  if (encoding === 'replacement') return bytes.length === 0 ? '' : '\uFFFD';
  return encoding === 'windows-1252' || encoding === 'x-user-defined'
    ? decodeByTable(bytes, encoding)
    : new TextDecoder(decoderFor(encoding), { ignoreBOM: true }).decode(bytes);
}

/** Encoding Standard, "gbk": its decoder is gb18030's; some Node versions have another. */
const decoderFor = (encoding: string): string => (encoding === 'gbk' ? 'gb18030' : encoding);

/** Encoding Standard, "index windows-1252", bytes 80 to 9F. Some Node versions decode this encoding as ISO-8859-1, so we do it. */
const windows1252High =
  '\u20AC\x81\u201A\u0192\u201E\u2026\u2020\u2021\u02C6\u2030\u0160\u2039\u0152\x8D\u017D\x8F' +
  '\x90\u2018\u2019\u201C\u201D\u2022\u2013\u2014\u02DC\u2122\u0161\u203A\u0153\x9D\u017E\u0178';

/** Encoding Standard, "windows-1252"; "x-user-defined": byte 80 is U+F780, and so on. */
function decodeByTable(bytes: Uint8Array, encoding: 'windows-1252' | 'x-user-defined'): string {
  const codeOf =
    encoding === 'windows-1252'
      ? (byte: number) => (byte >= 0x80 && byte < 0xa0 ? windows1252High.charCodeAt(byte - 0x80) : byte)
      : (byte: number) => (byte >= 0x80 ? 0xf700 + byte : byte);
  const parts: string[] = [];
  for (let from = 0; from < bytes.length; from += 8192) {
    const codes: number[] = [];
    for (let i = from; i < Math.min(from + 8192, bytes.length); i++) codes.push(codeOf(bytes[i]!));
    parts.push(String.fromCharCode(...codes));
  }
  return parts.join('');
}

/**
 * The bytes of a text in an encoding, or undefined when a character has no place in it or we do not write that encoding.
 * UTF-8, UTF-16, all single-byte encodings of the Encoding Standard and the one- and two-byte sequences of its East Asian ones
 * are written; a text with longer sequences, or with characters that several sequences stand for, may come back undefined or
 * with other bytes, so who edits a file first asks whether its own bytes come back.
 */
export function encodeText(text: string, encoding: string): Uint8Array | undefined {
  if (encoding === 'utf-8') return new TextEncoder().encode(text);
  if (encoding === 'utf-16le' || encoding === 'utf-16be') return encodeUtf16(text, encoding === 'utf-16be');
  if (/^(shift_jis|euc-jp|euc-kr|gbk|gb18030|big5)$/.test(encoding)) return encodeTwoBytes(text, encoding);
  const table = singleByteTable(encoding);
  if (!table) return undefined;
  const out = new Uint8Array(text.length);
  for (let i = 0; i < text.length; i++) {
    const byte = table.get(text.charCodeAt(i));
    if (byte === undefined) return undefined;
    out[i] = byte;
  }
  return out;
}

function encodeUtf16(text: string, bigEndian: boolean): Uint8Array {
  const out = new Uint8Array(text.length * 2);
  for (let i = 0; i < text.length; i++) {
    const unit = text.charCodeAt(i);
    out[2 * i + (bigEndian ? 1 : 0)] = unit & 0xff;
    out[2 * i + (bigEndian ? 0 : 1)] = unit >> 8;
  }
  return out;
}

/** One or two bytes a character, two of them as `lead × 256 + trail`. */
function encodeTwoBytes(text: string, encoding: string): Uint8Array | undefined {
  let table = twoByteTables.get(encoding);
  if (!table) twoByteTables.set(encoding, (table = makeTwoByteTable(encoding)));
  const out = new Uint8Array(text.length * 2);
  let length = 0;
  for (const character of text) {
    const code = table.get(character);
    if (code === undefined) return undefined;
    if (code > 0xff) out[length++] = code >> 8;
    out[length++] = code & 0xff;
  }
  return out.slice(0, length);
}

const twoByteTables = new Map<string, ReadonlyMap<string, number>>();

/** Made by asking the decoder. Private characters are left out: decoders part there. */
function makeTwoByteTable(encoding: string): ReadonlyMap<string, number> {
  const decoder = new TextDecoder(decoderFor(encoding));
  const table = new Map<string, number>();
  const add = (bytes: Uint8Array, code: number): void => {
    const text = decoder.decode(bytes);
    const isOne = text.length === 1 || (text.length === 2 && (text.codePointAt(0) ?? 0) > 0xffff);
    if (isOne && !/[\uFFFD\uE000-\uF8FF]/.test(text) && !table.has(text)) table.set(text, code);
  };
  for (let byte = 0; byte < 0x80; byte++) table.set(String.fromCharCode(byte), byte);
  for (let byte = 0x80; byte < 0x100; byte++) add(Uint8Array.of(byte), byte);
  for (let lead = 0x81; lead < 0xff; lead++)
    for (let trail = 0x40; trail < 0xff; trail++) add(Uint8Array.of(lead, trail), lead * 256 + trail);
  return table;
}

const tables = new Map<string, ReadonlyMap<number, number> | undefined>();

function singleByteTable(encoding: string): ReadonlyMap<number, number> | undefined {
  if (!tables.has(encoding)) tables.set(encoding, makeSingleByteTable(encoding));
  return tables.get(encoding);
}

function makeSingleByteTable(encoding: string): ReadonlyMap<number, number> | undefined {
  if (!/^(windows-|iso-8859-|koi8-|macintosh|x-mac-cyrillic|ibm866|x-user-defined)/.test(encoding)) return undefined;
  const table = new Map<number, number>();
  for (let byte = 0; byte < 256; byte++) {
    const text = decodeText(Uint8Array.of(byte), encoding);
    if (text.length === 1 && text !== '\uFFFD') table.set(text.charCodeAt(0), byte);
  }
  return table;
}

export function sameBytes(a: Uint8Array, b: Uint8Array): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}
