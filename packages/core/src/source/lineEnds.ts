/** The line end most used in a text; LF where there is none. */
export function lineEndOf(text: string): '\n' | '\r\n' | '\r' {
  if (!text.includes('\r')) return '\n';
  let crlf = 0;
  let cr = 0;
  let lf = 0;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (code === 13) {
      if (text.charCodeAt(i + 1) === 10) {
        crlf++;
        i++;
      } else cr++;
    } else if (code === 10) lf++;
  }
  if (crlf > 0 && crlf >= lf && crlf >= cr) return '\r\n';
  return cr > lf ? '\r' : '\n';
}

/** The same text with every line end replaced by `lineEnd`. */
export const withLineEnds = (text: string, lineEnd: string): string => text.replace(/\r\n|\r|\n/g, lineEnd);
