import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { Stream, streams } from '../testing/streams.ts';
import { followEvents } from './followEvents.ts';

const opened = streams();
beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

test('a stream that was refused is asked for again; one that broke off is left to the browser', () => {
  const told: unknown[] = [];
  const stop = followEvents('/api/x', (reply) => told.push(reply));
  opened[0]!.says({ version: 1 });
  opened[0]!.breaks(0);
  jest.runAllTimers();
  expect(opened).toHaveLength(1);
  opened[0]!.breaks(Stream.CLOSED);
  jest.runAllTimers();
  expect(opened.map(({ address }) => address)).toEqual(['/api/x', '/api/x']);
  opened[1]!.says({ version: 2 });
  expect(told).toEqual([{ version: 1 }, { version: 2 }]);
  stop();
  expect(opened[1]!.readyState).toBe(Stream.CLOSED);
});

test('nothing is asked for again once nobody follows', () => {
  const stop = followEvents('/api/x', () => undefined);
  opened[0]!.breaks(Stream.CLOSED);
  stop();
  jest.runAllTimers();
  expect(opened).toHaveLength(1);
});

test('without events nothing is told', () => {
  Reflect.deleteProperty(globalThis, 'EventSource');
  expect(() => followEvents('/api/x', () => undefined)()).not.toThrow();
});
