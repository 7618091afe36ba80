import type { Random } from '../packages/core/src/testing/random.ts';

const tags = ['p', 'div', 'a', 'li', 'ul', 'td', 'table', 'span', 'h2', 'em', 'input', 'label', 'section', 'b', 'LI', 'body', 'svg', 'linearGradient']; // oxfmt-ignore
const classes = ['a', 'b', 'c', 'A', 'note', 'c-1', '\\31 x'];
const ids = ['x', 'y', 'X', 'main'];
const attributes = ['[class]', '[class~=a]', '[href]', '[href^="/"]', '[lang|=en]', '[type=TEXT]', '[title="t" i]', '[data-k=v]', '[class*=ot]', '[id$=n]', '[align=center]', '[rel]', '[title=""]', '[*|href]', '[viewBox]']; // oxfmt-ignore
const pseudos = [
  ':first-child',
  ':last-child',
  ':only-child',
  ':first-of-type',
  ':last-of-type',
  ':only-of-type',
  ':empty',
  ':root',
  ':any-link',
  ':link',
  ':visited',
  ':hover',
  ':focus',
  ':active',
  ':focus-within',
  ':enabled',
  ':disabled',
  ':checked',
  ':required',
  ':optional',
  ':read-only',
  ':read-write',
  ':placeholder-shown',
  ':nth-child(2n+1)',
  ':nth-child(-n + 3)',
  ':nth-last-child(2)',
  ':nth-of-type(even)',
  ':nth-child(2 of .a)',
  ':nth-last-of-type(n)',
  ':lang(en)',
  ':lang(de)',
  ':dir(rtl)',
  ':dir(ltr)',
  ':scope',
  ':target',
  ':default',
  ':indeterminate',
  ':in-range',
  ':valid',
  ':invalid',
  ':defined',
];
const bad = [':bogus', '::bogus', '..a', 'p:', '#1a', '.1a', '[a!=b]', ':not()', ':has(:has(a))', 'p >', '> > p', ':nth-child(2x)', 'a:hover::before:focus-x', '!', ':matches(a)', ':contains("x")', 'h1 | h2']; // oxfmt-ignore

export function compound(random: Random, depth = 0): string {
  const parts: string[] = [];
  const kind = random.below(10);
  if (kind < 4) parts.push(random.pick(tags));
  else if (kind === 4) parts.push('*');
  if (random.chance(0.45)) parts.push(`.${random.pick(classes)}`);
  if (random.chance(0.12)) parts.push(`#${random.pick(ids)}`);
  if (random.chance(0.15)) parts.push(random.pick(attributes));
  if (random.chance(0.2)) parts.push(random.pick(pseudos));
  if (depth < 2 && random.chance(0.2)) parts.push(functional(random, depth + 1));
  return parts.length > 0 ? parts.join('') : `.${random.pick(classes)}`;
}

function functional(random: Random, depth: number): string {
  const list = random.times(1, 3, () => complex(random, depth));
  const name = random.pick(['is', 'where', 'not', 'is', 'has']);
  if (name === 'has')
    return depth > 1 ? ':first-child' : `:has(${random.pick(['', '> ', '+ ', '~ '])}${compound(random, 2)})`;
  if (name !== 'not' && random.chance(0.15)) list.push(random.pick(bad));
  return `:${name}(${list.join(', ')})`;
}

export function complex(random: Random, depth = 0): string {
  let out = compound(random, depth);
  while (random.chance(0.35)) out += random.pick([' ', ' > ', ' + ', ' ~ ', ' ', '>']) + compound(random, depth);
  return out;
}

/** A rule's prelude; now and then one that browsers refuse. */
export function selectorList(random: Random, nested = false): string {
  const list = random.times(1, random.chance(0.3) ? 3 : 1, () => {
    let text = complex(random);
    if (nested && random.chance(0.5)) text = random.pick(['& ', '&', '> ', '& > ', '+ ', '.a &, ']) + text;
    if (random.chance(0.12))
      text += random.pick([
        '::before',
        '::after',
        ':before',
        '::first-line',
        '::marker',
        ':first-letter',
        '::placeholder',
      ]);
    return text;
  });
  if (random.chance(0.05)) list.push(random.pick(bad));
  return list.join(random.chance(0.2) ? ' ,/* , */' : ', ');
}
