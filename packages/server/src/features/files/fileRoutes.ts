import { makeSiteFile, runEndings } from '@syndeton/core';
import type { Handlers } from '../../http/router.ts';
import type { FileReader } from './fileReader.ts';
import type { FileService } from './fileService.ts';
import type { OutsideService } from './outsideService.ts';

export function fileHandlers(
  files: FileService,
  outside: OutsideService,
  fileIn: FileReader,
): Handlers<'addFiles' | 'compareFiles' | 'takeOutside' | 'removeFiles' | 'takeInFile' | 'readAsPages' | 'readFile'> {
  return {
    addFiles: ({ params, fields }, { archive }) => files.add(params.id, fields.base, archive().path, fields),
    compareFiles: ({ params, fields }, { archive }) =>
      outside.compare(params.id, fields.base, archive().path, fields.names),
    takeOutside: ({ params, fields }, { archive }) => outside.take(params.id, fields.base, archive().path, fields),
    removeFiles: ({ params, body }) => files.remove(params.id, body),
    readAsPages: ({ params, body }) => files.readAsPages(params.id, body),
    takeInFile: ({ params, body }) => files.takeIn(params.id, body),
    async readFile({ params: { id, state, path } }) {
      const { hash, encoding = '', text = null } = makeSiteFile(path, await fileIn(id, state, path), runEndings);
      return { path, hash, encoding, text };
    },
  };
}
