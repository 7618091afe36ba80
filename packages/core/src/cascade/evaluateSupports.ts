import { trimmed } from '../source/space.ts';
import { ident } from 'css-tree';
import { parseSelectorList } from '../selectors/parseSelector.ts';
import { tokenTypes as T } from '../sheet/tokens.ts';
import { declarationValidity } from '../values/declarationValidity.ts';
import { propertyName } from '../values/longhands.ts';
import {
  partOf,
  readCondition,
  subpart,
  textAt,
  textOfPart,
  typeAt,
  type ConditionTree,
  type Part,
} from './conditionTree.ts';
import { allOf, anyOf, negate, type Answer } from './logic.ts';

/**
 * Whether an `@supports` condition holds in Chromium; `undefined` where validity of a declaration cannot be told.
 *
 * CSS Conditional Rules 3, "Feature queries"; Level 4, `selector()`; Level 5, `font-tech()` and `font-format()`.
 */
export function evaluateSupports(text: string): Answer {
  const part = partOf(text);
  const tree = part && readCondition(part);
  return tree ? evaluateTree(tree) : false;
}

function evaluateTree(tree: ConditionTree): Answer {
  switch (tree.kind) {
    case 'not':
      return negate(evaluateTree(tree.of));
    case 'and':
      return allOf(tree.of.map(evaluateTree));
    case 'or':
      return anyOf(tree.of.map(evaluateTree));
    case 'lost':
      return undefined;
    case 'leaf':
      if (tree.name !== undefined) return supportsFunction(tree.name, textOfPart(tree.inside));
      return typeAt(tree.inside, tree.inside.from + 1) === T.Colon ? supportsDeclaration(tree.inside) : false;
  }
}

const fontFormats = /^(woff2?|opentype|truetype|collection|svg)$/i;
const fontTechs =
  /^(features-opentype|features-aat|variations|color-colrv0|color-colrv1|color-svg|color-sbix|color-cbdt|palettes)$/i;

function supportsDeclaration(part: Part): Answer {
  const property = propertyName(ident.decode(textAt(part, part.from)));
  const bare = trimmed(textOfPart(subpart(part, part.from + 2)).replace(/![\t\n\f\r ]*important$/i, ''));
  if (part.list.slice(part.from, part.to).some((i) => part.tokens.type[i] === T.Semicolon)) return false;
  if (property.startsWith('--')) return true;
  const validity = declarationValidity(property, bare);
  return validity === 'unsure' ? undefined : validity === 'valid';
}

function supportsFunction(name: string, argument: string): Answer {
  switch (name) {
    case 'selector': {
      const list = parseSelectorList(argument);
      // forgiving lists do not forgive here
      if (list?.length !== 1) return false;
      return /:(is|where)\(|::-webkit-/i.test(argument) ? undefined : true;
    }
    case 'font-format':
      return fontFormats.test(argument);
    case 'font-tech':
      return fontTechs.test(argument);
    case 'at-rule':
      return undefined;
    default:
      return false;
  }
}
