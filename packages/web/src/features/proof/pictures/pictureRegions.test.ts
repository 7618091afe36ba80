import { expect, test } from '@jest/globals';
import { pictureRegions, type Picture } from './pictureRegions.ts';

/** A white picture with boxes of one colour. */
function picture(width: number, height: number, ...boxes: readonly (readonly [left: number, top: number, right: number, bottom: number])[]): Picture {
  const data = new Uint8ClampedArray(width * height * 4).fill(255);
  for (const [left, top, right, bottom] of boxes)
    for (let y = top; y < bottom; y++) for (let x = left; x < right; x++) data.set([200, 0, 0, 255], (y * width + x) * 4);
  return { width, height, data };
} // oxfmt-ignore

test('equal pictures have no region', () => {
  const one = picture(100, 80, [10, 10, 20, 20]);
  expect(pictureRegions(one, picture(100, 80, [10, 10, 20, 20]))).toEqual({ pixels: 0, regions: [] });
});

test('differing pixels that lie together are one region, others are others, from the top down', () => {
  const before = picture(240, 240);
  const after = picture(240, 240, [100, 120, 150, 130], [2, 2, 3, 3], [200, 200, 240, 240]);
  expect(pictureRegions(before, after)).toEqual({
    pixels: 500 + 1 + 1600,
    regions: [
      { left: 0, top: 0, width: 24, height: 24 },
      { left: 96, top: 120, width: 72, height: 24 },
      { left: 192, top: 192, width: 48, height: 48 },
    ],
  });
});

test('a colour that is one step off counts', () => {
  const after = picture(48, 48);
  after.data[0] = 254;
  expect(pictureRegions(picture(48, 48), after).regions).toHaveLength(1);
});

test('what one is longer by differs, to the edge of the picture', () => {
  expect(pictureRegions(picture(50, 50), picture(50, 60)).regions).toEqual([
    { left: 0, top: 48, width: 50, height: 12 },
  ]);
});
