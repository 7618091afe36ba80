/** CSS Syntax 3, "Consume an escaped code point": the text with escapes resolved. */
export function unescapeCss(text: string): string {
  if (!text.includes('\\')) return text;
  return text.replace(
    /\\(?:([0-9a-fA-F]{1,6})(?:\r\n|[ \t\n\r\f])?|(\r\n|[\n\r\f])|([^]))/g,
    (_all, hex, newline, other) => {
      if (hex === undefined) return newline === undefined ? (other as string) : '';
      const code = parseInt(hex as string, 16);
      return code === 0 || code > 0x10ffff || (code >= 0xd800 && code <= 0xdfff)
        ? '\uFFFD'
        : String.fromCodePoint(code);
    },
  );
}

/** CSSOM, "Serialize an identifier". */
export function escapeIdentifier(name: string): string {
  let out = '';
  [...name].forEach((char, i) => {
    const code = char.codePointAt(0)!;
    const digit = code >= 0x30 && code <= 0x39;
    if (code === 0) out += '\uFFFD';
    else if (code < 0x20 || code === 0x7f || (digit && (i === 0 || (i === 1 && name[0] === '-'))))
      out += `\\${code.toString(16)} `;
    else if (char === '-' && name.length === 1) out += '\\-';
    else out += code >= 0x80 || /[-\w]/.test(char) ? char : `\\${char}`;
  });
  return out;
}
