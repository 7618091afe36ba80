/**
 * Whether an escape, of CSS, HTML or a URL, could spell the name of a sheet that a text links or imports, so that the name itself is
 * nowhere to be read. What is longer than any such tag or prelude is taken for one.
 */
export const mayBeSpelled = (text: string): boolean =>
  /@[-\w]*\\|<style\b[^>]{0,500}>[^<]*&#/i.test(text) ||
  anywhere(text, /<(?:link|base)\b/gi, isSpelledTag) ||
  anywhere(text, /@import|<\?xml-stylesheet/gi, isSpelledPrelude);

const longest = 2000;

function anywhere(text: string, start: RegExp, holds: (part: string) => boolean): boolean {
  for (const { index } of text.matchAll(start)) if (holds(text.slice(index, index + longest))) return true;
  return false;
}

/** What stands up to the end of the tag, which none of its quoted values holds. */
function isSpelledTag(part: string): boolean {
  const tag = /^<[a-z]+(?:[^>"']|"[^"]*"|'[^']*')*>/i.exec(part)?.[0];
  return tag === undefined || /[%&]/.test(tag);
}

/** What stands up to the semicolon, which is none in a string, an address or a comment. */
function isSpelledPrelude(part: string): boolean {
  const [prelude] =
    /^[@<?]+[-\w]+(?:[^;"'/(]|"(?:[^"\\\n]|\\[^])*["\n]|'(?:[^'\\\n]|\\[^])*['\n]|\/\*[^]*?\*\/|\([^)]*\)|[/(])*/.exec(
      part,
    )!;
  return prelude.length === part.length || /[\\%&]/.test(prelude.replace(/\/\*[^]*?\*\//g, ''));
}
