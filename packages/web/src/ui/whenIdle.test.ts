import { afterEach, expect, jest, test } from '@jest/globals';
import { whenIdle } from './whenIdle.ts';

const { requestIdleCallback: asIs } = globalThis;
afterEach(() => {
  globalThis.requestIdleCallback = asIs;
  jest.useRealTimers();
});

test('done when the browser is idle, and within three seconds', () => {
  const ask = jest.fn<typeof requestIdleCallback>(() => 7);
  globalThis.requestIdleCallback = ask;
  const act = jest.fn();
  whenIdle(act);
  expect(ask.mock.calls[0]![1]).toEqual({ timeout: 3000 });
  ask.mock.calls[0]![0]({} as IdleDeadline);
  expect(act).toHaveBeenCalledTimes(1);
});

test('where a browser does not say so, soon; left, never', () => {
  Reflect.deleteProperty(globalThis, 'requestIdleCallback');
  jest.useFakeTimers();
  const [act, left] = [jest.fn(), jest.fn()];
  whenIdle(act);
  whenIdle(left)();
  jest.runAllTimers();
  expect([act.mock.calls.length, left.mock.calls.length]).toEqual([1, 0]);
});
