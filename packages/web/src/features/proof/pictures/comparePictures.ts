import type { Compared, Picture } from './pictureRegions.ts';

/** In a worker: a page of 1280 by 8000 pixels is 40 MB. */
export function comparePictures(before: HTMLCanvasElement, after: HTMLCanvasElement): Promise<Compared> {
  const worker = new Worker(new URL('./pictures.worker.ts', import.meta.url), { type: 'module' });
  return new Promise<Compared>((resolve, reject) => {
    worker.onmessage = ({ data }: MessageEvent<Compared>) => resolve(data);
    worker.onerror = () => reject(new Error('The pictures could not be compared.'));
    const [one, other] = [pixelsOf(before), pixelsOf(after)];
    worker.postMessage({ before: one, after: other }, [one.data.buffer, other.data.buffer]);
  }).finally(() => worker.terminate());
}

function pixelsOf(canvas: HTMLCanvasElement): Picture & { readonly data: Uint8ClampedArray<ArrayBuffer> } {
  const { width, height, data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
  return { width, height, data: new Uint8ClampedArray(data) };
}
