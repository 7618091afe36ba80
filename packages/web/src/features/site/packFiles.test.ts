import { expect, test } from '@jest/globals';
import { unzipSync } from 'fflate';
import { packFiles } from './packFiles.ts';

const file = (path: string, bytes: number[]) => {
  const content = Uint8Array.from(bytes);
  return {
    path,
    file: { name: path.split('/').at(-1)!, arrayBuffer: () => Promise.resolve(content.buffer) } as unknown as File,
  };
};

test('a folder becomes one zip, byte for byte, named for the folder', async () => {
  const { archive, name } = await packFiles([file('ferry/a.html', [1, 2]), file('ferry/img/x.png', [0, 255])]);
  expect(name).toBe('ferry');
  const bytes = await new Promise<ArrayBuffer>((resolve) => {
    const reader = new FileReader();
    reader.onload = () => resolve(reader.result as ArrayBuffer);
    reader.readAsArrayBuffer(archive);
  });
  const files = unzipSync(new Uint8Array(bytes));
  expect(Object.entries(files).map(([path, content]) => [path, [...content]])).toEqual([
    ['ferry/a.html', [1, 2]],
    ['ferry/img/x.png', [0, 255]],
  ]);
});

test('a zip is sent as it is', async () => {
  const zip = file('site.zip', [80, 75]);
  expect(await packFiles([zip])).toEqual({ archive: zip.file, name: 'site' });
});
