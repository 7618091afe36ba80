import pixelmatch from 'pixelmatch';

export interface Picture {
  readonly width: number;
  readonly height: number;
  /** Red, green, blue and opacity of each pixel. */
  readonly data: Uint8ClampedArray;
}

/** A part of both pictures where pixels differ. */
export interface Region {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

export interface Compared {
  /** How many pixels are not the same. */
  readonly pixels: number;
  /** From the top down. */
  readonly regions: readonly Region[];
}

/** Differing pixels in neighbouring squares of this size are one region. */
const square = 24;

/** Compares two pictures pixel by pixel; what one has below the end of the other differs. */
export function pictureRegions(before: Picture, after: Picture): Compared {
  const width = Math.max(before.width, after.width);
  const height = Math.max(before.height, after.height);
  const mask = new Uint8ClampedArray(width * height * 4);
  // every difference counts, also one of smoothing: both were drawn by the same browser
  const pixels = pixelmatch(padded(before, width, height), padded(after, width, height), mask, width, height, {
    threshold: 0,
    includeAA: true,
    diffMask: true,
  });
  const across = Math.ceil(width / square);
  const squares = new Set<number>();
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (mask[(y * width + x) * 4 + 3] !== 0) squares.add(Math.floor(y / square) * across + Math.floor(x / square));
  return { pixels, regions: regionsOf(squares, across, width, height) };
}

/** The picture with clear pixels to its right and below. */
function padded({ data, width, height }: Picture, toWidth: number, toHeight: number): Uint8ClampedArray {
  if (width === toWidth && height === toHeight) return data;
  const out = new Uint8ClampedArray(toWidth * toHeight * 4);
  for (let y = 0; y < height; y++) out.set(data.subarray(y * width * 4, (y + 1) * width * 4), y * toWidth * 4);
  return out;
}

function regionsOf(squares: ReadonlySet<number>, across: number, width: number, height: number): readonly Region[] {
  const seen = new Set<number>();
  const regions: Region[] = [];
  for (const start of squares) {
    if (seen.has(start)) continue;
    seen.add(start);
    const work = [start];
    let [left, top, right, bottom] = [Infinity, Infinity, 0, 0];
    while (work.length > 0) {
      const at = work.pop()!;
      const [x, y] = [at % across, Math.floor(at / across)];
      [left, right] = [Math.min(left, x), Math.max(right, x + 1)];
      [top, bottom] = [Math.min(top, y), Math.max(bottom, y + 1)];
      for (const next of neighbours(x, y, across))
        if (squares.has(next) && !seen.has(next)) {
          seen.add(next);
          work.push(next);
        }
    }
    regions.push({
      left: left * square,
      top: top * square,
      width: Math.min(right * square, width) - left * square,
      height: Math.min(bottom * square, height) - top * square,
    });
  }
  return regions.sort((a, b) => a.top - b.top || a.left - b.left);
}

function neighbours(x: number, y: number, across: number): readonly number[] {
  const out: number[] = [];
  for (let dy = -1; dy <= 1; dy++)
    for (let dx = -1; dx <= 1; dx++)
      if (x + dx >= 0 && x + dx < across && y + dy >= 0) out.push((y + dy) * across + x + dx);
  return out;
}
