import { closest, distance } from 'fastest-levenshtein';
import { definitionSyntax, lexer } from 'css-tree';
import { longhandNames, longhandsOfShorthand } from '../values/propertyTable.ts';

const properties = [...longhandNames, ...Object.keys(longhandsOfShorthand)].filter((name) => !name.startsWith('-'));

/** The property a misspelt name probably means, or undefined. */
export const nearestProperty = (name: string): string | undefined => near(name, properties);

/** The keyword a misspelt one probably means among those a property takes, or undefined. */
export function nearestKeyword(property: string, word: string): string | undefined {
  return near(word.toLowerCase(), keywordsOf(property));
}

/** At most one slip in three letters, and never more than three. */
export function near(name: string, names: readonly string[]): string | undefined {
  if (name.length < 3 || names.length === 0) return undefined;
  const best = closest(name, [...names]);
  const slips = distance(name, best);
  return slips > 0 && slips <= Math.min(3, Math.max(1, Math.floor(name.length / 3))) ? best : undefined;
}

const memo = new Map<string, readonly string[]>();

/** All keywords in a property's value definition. CSS Values and Units 4, "Value Definition Syntax". */
export function keywordsOf(property: string): readonly string[] {
  let known = memo.get(property);
  if (!known) {
    const names = new Set<string>();
    collect({ type: 'Property', name: property }, names, new Set());
    memo.set(property, (known = [...names]));
  }
  return known;
}

interface SyntaxNode {
  readonly type: string;
  readonly name: string;
}

function collect({ type, name }: SyntaxNode, out: Set<string>, seen: Set<string>): void {
  const key = `${type} ${name}`;
  if (seen.has(key)) return;
  seen.add(key);
  const found = (type === 'Property' ? lexer.getProperty(name) : lexer.getType(name)) as { syntax?: unknown } | null;
  if (!found?.syntax) return;
  definitionSyntax.walk(found.syntax as never, (walked) => {
    const node = walked as SyntaxNode;
    if (node.type === 'Keyword') out.add(node.name.toLowerCase());
    else if (node.type === 'Type' || node.type === 'Property') collect(node, out, seen);
  });
}
