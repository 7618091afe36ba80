import type { DSNode, DSNodeGroup, DSNodeMultiplier, DSNodeType } from 'css-tree';
import { browserLexer } from '../values/browserLexer.ts';
import { longhandsOf } from '../values/longhands.ts';
import type { Random } from './random.ts';

/** What a terminal of the grammar may look like. CSS Values 4, "Textual Data Types" and after. */
const terminals: Readonly<Record<string, readonly string[]>> = {
  number: ['0', '1', '2.5', '-1', '.5', '1e1'],
  integer: ['0', '1', '3', '-2'],
  length: ['0', '1px', '2em', '-3px', '4vw', '1dvh', '2rem'],
  percentage: ['0%', '50%', '-5%'],
  'length-percentage': ['0', '1px', '50%', '-2em'],
  angle: ['0deg', '45deg', '.5turn', '0'],
  time: ['1s', '250ms', '-1s', '0s'],
  resolution: ['2dppx', '96dpi'],
  flex: ['1fr'],
  frequency: ['1Hz'],
  string: ['"x"', "'y'"],
  url: ['url(a.png)', 'url("b")'],
  ident: ['abc'],
  'custom-ident': ['abc', 'none', 'auto'],
  'dashed-ident': ['--x'],
  'hex-color': ['#fff', '#abcd', '#112233'],
  zero: ['0'],
  'custom-property-name': ['--x'],
};

/** Words that stand for the whole of a value. CSS Cascading 5, "Explicit Defaulting". */
const alone = ['inherit', 'initial', 'unset', 'revert', 'revert-layer', 'none', 'auto'];

class NoValue extends Error {}

/** Values that the grammar makes for a property, and near misses: words in another order, left out, said twice. */
export function grammarValues(property: string, count: number, random: Random): readonly string[] {
  const only = longhandsOf(property);
  const known = syntaxOf('property', property) ?? (only.length === 1 ? syntaxOf('property', only[0]!) : undefined);
  if (!known) return [];
  const found = new Set<string>();
  for (let i = 0; i < count; i++) {
    const value = valueOf(known, random);
    if (value === undefined || value === '' || value.length > 200) continue;
    found.add(value);
    for (const miss of nearMisses(value, random)) found.add(miss);
  }
  return [...found];
}

function valueOf(syntax: DSNode, random: Random): string | undefined {
  try {
    return made(syntax, random, 0).replace(/\s+/g, ' ').replace(/ ,/g, ',').replace(/,$/, '').trim();
  } catch (error) {
    if (error instanceof NoValue) return undefined;
    throw error;
  }
}

function nearMisses(value: string, random: Random): readonly string[] {
  const words = value.split(' ');
  const out: string[] = [];
  if (random.chance(0.5)) out.push(shuffled(words, random).join(' '));
  if (random.chance(0.2)) out.push([...words, random.pick(words)].join(' '));
  if (random.chance(0.2) && words.length > 1) out.push(words.slice(1).join(' '));
  if (random.chance(0.2)) out.push(`${value}, ${value}`);
  if (random.chance(0.1)) out.push(`${value}, ${random.pick(alone)}`);
  if (random.chance(0.1)) out.push(value.replaceAll(' ', random.pick(['/**/', '\n', '  ', ' /* x */ '])));
  if (random.chance(0.2)) out.push(value.replace(' ', ' / '));
  if (random.chance(0.1)) out.push(value.replace(/\d+px|\d+%/, 'calc(1px + 2%)'));
  return out;
}

function syntaxOf(kind: 'property' | 'type', name: string): DSNode | undefined {
  const known = kind === 'type' ? browserLexer.getType(name) : browserLexer.getProperty(name);
  return (known as { readonly syntax?: DSNode } | null)?.syntax;
}

function shuffled<T>(list: readonly T[], random: Random): readonly T[] {
  return list
    .map((item) => [random.next(), item] as const)
    .sort((a, b) => a[0] - b[0])
    .map(([, item]) => item);
}

function made(node: DSNode, random: Random, depth: number): string {
  if (depth > 14) throw new NoValue();
  switch (node.type) {
    case 'Keyword':
      return node.name;
    case 'Token':
    case 'String':
      return node.value;
    case 'Comma':
      return ',';
    case 'Function':
      return `${node.name}(`;
    case 'Type':
      return madeType(node, random, depth);
    case 'Property':
      return madeOf(syntaxOf('property', node.name), random, depth);
    case 'Multiplier':
      return repeated(node, random, depth);
    case 'Group':
      return grouped(node, random, depth);
    default:
      throw new NoValue();
  }
}

function madeOf(syntax: DSNode | undefined, random: Random, depth: number): string {
  if (!syntax) throw new NoValue();
  return made(syntax, random, depth + 1);
}

function madeType(node: DSNodeType, random: Random, depth: number): string {
  const all = terminals[node.name];
  if (!all) return madeOf(syntaxOf('type', node.name), random, depth);
  const least = node.opts?.min ?? -Infinity;
  const within = all.filter((value) => Number.isNaN(parseFloat(value)) || parseFloat(value) >= least);
  return random.pick(within.length > 0 ? within : ['1']);
}

function repeated(node: DSNodeMultiplier, random: Random, depth: number): string {
  const most = node.max === 0 ? node.min + 2 : Math.min(node.max, node.min + 2);
  return random
    .times(node.min, most, () => made(node.term as DSNode, random, depth + 1))
    .filter(Boolean)
    .join(node.comma ? ', ' : ' ');
}

function grouped(node: DSNodeGroup, random: Random, depth: number): string {
  const { terms, combinator } = node;
  if (combinator === '|') return made(random.pick(terms), random, depth + 1);
  if (combinator === ' ') {
    let text = '';
    for (const term of terms) {
      const next = made(term, random, depth + 1);
      const joined = text === '' || text.endsWith('(') || next === ',' || next === ')' || next === '';
      text += (joined ? '' : ' ') + next;
    }
    return text;
  }
  const some = combinator === '&&' ? terms : terms.filter(() => random.chance(0.5));
  const chosen = some.length > 0 ? some : [random.pick(terms)];
  return shuffled(chosen, random)
    .map((term) => made(term, random, depth + 1))
    .join(' ');
}
