/** Where the first compound of a selector's text ends: brackets, strings and escapes are passed over. */
export function endOfCompound(text: string): number {
  let depth = 0;
  for (let i = 0; i < text.length; i++) {
    const c = text[i]!;
    if (c === '\\') i++;
    else if (c === '"' || c === "'") {
      const close = text.indexOf(c, i + 1);
      if (close > 0) i = close;
    } else if (c === '(' || c === '[') depth++;
    else if (c === ')' || c === ']') depth--;
    else if (depth === 0 && /[\t\n\f\r >+~]/.test(c)) return i;
  }
  return text.length;
}
