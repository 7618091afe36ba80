import { expect, test } from '@jest/globals';
import { LayerOrder } from './layers.ts';

function ranksOf(declared: readonly string[], asked: readonly string[]): readonly number[] {
  const layers = new LayerOrder();
  for (const name of declared) layers.declare(name.split('.'));
  return asked.map((name) => layers.rank(name === '' ? [] : name.split('.')));
}

// CSS Cascading and Inheritance 5, "Layer Ordering"
test.each([
  ['by first appearance', ['a', 'b', 'a'], ['a', 'b', '']],
  ['what a layer holds itself beats its sub-layers', ['a.x', 'a'], ['a.x', 'a', '']],
  ['sub-layers stay inside their parent', ['a', 'b', 'a.x'], ['a.x', 'a', 'b', '']],
  ['deep ones', ['a.b.c', 'a.b', 'a'], ['a.b.c', 'a.b', 'a', '']],
])('%s', (_shows, declared, weakestFirst) => {
  const ranks = ranksOf(declared, weakestFirst);
  expect([...ranks].sort((x, y) => x - y)).toEqual(ranks);
  expect(new Set(ranks).size).toBe(ranks.length);
});
