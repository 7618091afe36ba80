/**
 * The text with A to Z as a to z, as HTML and CSS compare names: other letters keep their case, and the Kelvin sign, which scripts make a
 * `k`, is none. Infra, "ASCII lowercase".
 */
export const lowered = (text: string): string =>
  beyondAscii.test(text) ? text.replace(/[A-Z]+/g, (letters) => letters.toLowerCase()) : text.toLowerCase();

const beyondAscii = /[^\0-\x7f]/;
