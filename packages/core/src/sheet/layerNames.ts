import { trimmed } from '../source/space.ts';
import { ident } from 'css-tree';
import { tokensOf, tokenTypes as T } from './tokens.ts';

/**
 * The layers a list of names says, each from the outermost in; undefined when it is malformed, as browsers drop the rule then.
 *
 * CSS Cascading and Inheritance Level 5, "Syntax for Layer Names": identifiers joined by full stops without white space.
 */
export function layerNames(text: string): readonly (readonly string[])[] | undefined {
  const tokens = tokensOf(trimmed(text));
  const names: string[][] = [[]];
  // what may come next: a name, or what follows one
  let wantsName = true;
  for (let i = 0; i < tokens.count; i++) {
    const type = tokens.type[i]!;
    const raw = tokens.text.slice(tokens.start[i], tokens.end[i]);
    if (type === T.Comment) continue;
    if (type === T.WhiteSpace) {
      const [before, after] = [tokens.type[i - 1], tokens.type[i + 1]];
      if (before !== T.Comma && after !== T.Comma && after !== T.Comment) return undefined;
    } else if (wantsName && type === T.Ident) {
      names.at(-1)!.push(ident.decode(raw));
      wantsName = false;
    } else if (!wantsName && type === T.Delim && raw === '.') wantsName = true;
    else if (!wantsName && type === T.Comma) {
      names.push([]);
      wantsName = true;
    } else return undefined;
  }
  return wantsName ? undefined : names;
}
