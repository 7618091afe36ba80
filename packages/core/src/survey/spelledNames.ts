/**
 * Whether an escape, of CSS, HTML or a URL, could spell the name of a sheet that a text links or imports, so that the name itself is
 * nowhere to be read. What is longer than any such tag or prelude is taken for one.
 */
export const mayBeSpelled = (text: string): boolean =>
  /@[-\w]*\\|<style\b[^>]*>[^<]*&#/i.test(text) ||
  anywhere(text, /<(?:link|base)\b/gi, (part) => /[%&]/.test(tag.exec(part)?.[0] ?? part) || !tag.test(part)) ||
  anywhere(text, /@import|<\?xml-stylesheet/gi, isSpelledPrelude);

const longest = 2000;

function anywhere(text: string, start: RegExp, holds: (part: string) => boolean): boolean {
  for (const { index } of text.matchAll(start)) if (holds(text.slice(index, index + longest))) return true;
  return false;
}

/** A tag to its end, which none of its quoted values holds. */
const tag = /^<[a-z]+(?:[^>"']|"[^"]*"|'[^']*')*>/i;

/** What stands up to the semicolon, which is none in a string, an address or a comment. */
function isSpelledPrelude(part: string): boolean {
  const [prelude] =
    /^[@<?]+[-\w]+(?:[^;"'/(]|"(?:[^"\\\n]|\\[^])*["\n]|'(?:[^'\\\n]|\\[^])*['\n]|\/\*[^]*?\*\/|\([^)]*\)|[/(])*/.exec(
      part,
    )!;
  return prelude.length === part.length || /[\\%&]/.test(prelude.replace(/\/\*[^]*?\*\//g, ''));
}
