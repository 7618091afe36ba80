import { expect, test } from '@jest/globals';
import { Turns } from './turns.ts';

test('so many at once, the others in their order; too many are refused; what fails gives its place on', async () => {
  const turns = new Turns(2, 2);
  const ended: ((error?: Error) => void)[] = [];
  const begun: string[] = [];
  const take = (name: string, signal?: AbortSignal): Promise<string> =>
    turns.run(() => {
      begun.push(name);
      return new Promise((resolve, reject) => ended.push((error) => (error ? reject(error) : resolve(name))));
    }, signal);
  const stop = new AbortController();
  const all = [take('a'), take('b'), take('c', stop.signal), take('d')];
  await expect(take('e')).rejects.toMatchObject({ code: 'busy' });
  expect(begun).toEqual(['a', 'b']);
  stop.abort();
  ended[0]!(new Error('damaged'));
  await expect(all[0]).rejects.toThrow('damaged');
  // c went away while it waited
  await expect(all[2]).rejects.toThrow();
  expect(begun).toEqual(['a', 'b', 'd']);
  ended[1]!();
  ended[2]!();
  expect(await Promise.all([all[1], all[3]])).toEqual(['b', 'd']);
  const last = take('f');
  expect(begun.at(-1)).toBe('f');
  ended[3]!();
  expect(await last).toBe('f');
});
