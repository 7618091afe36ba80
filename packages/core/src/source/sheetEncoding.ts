import { byteOrderMark } from './pageEncoding.ts';
import { encodingName } from './textCoding.ts';

/**
 * The encoding a browser reads a sheet in when the server names none: byte order mark, `@charset`, then the page's own.
 *
 * CSS Syntax 3, "The input byte stream".
 */
export function sheetEncoding(bytes: Uint8Array, environmentEncoding: string): string {
  const mark = byteOrderMark(bytes);
  if (mark) return mark;
  const declared = declaredCharset(bytes);
  if (declared !== undefined) return declared;
  return environmentEncoding;
}

/** The encoding named by an `@charset` rule in exactly the bytes the standard asks for, or undefined. */
export function declaredCharset(bytes: Uint8Array): string | undefined {
  let text = '';
  for (let i = 0; i < Math.min(bytes.length, 1024); i++) text += String.fromCharCode(bytes[i]!);
  const found = /^@charset "([^"]*)";/.exec(text);
  const name = found ? encodingName(found[1]!) : undefined;
  return name === 'utf-16le' || name === 'utf-16be' ? 'utf-8' : name;
}

/** Whether every byte means the same in UTF-8 and in all single-byte encodings. */
export function isAscii(bytes: Uint8Array): boolean {
  for (let i = 0; i < bytes.length; i++) if (bytes[i]! > 0x7f) return false;
  return true;
}
