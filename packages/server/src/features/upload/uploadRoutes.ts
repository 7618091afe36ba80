import type { Handlers } from '../../http/router.ts';
import type { UploadService } from './uploadService.ts';
import { revisionNumber } from '../revisions/index.ts';

export function uploadHandlers(
  uploads: UploadService,
): Handlers<'askMachine' | 'startUpload' | 'readUpload' | 'followUpload' | 'stopUpload'> {
  return {
    askMachine: ({ params, body }) => uploads.key(params.id, body),
    startUpload: ({ params, body }) => uploads.start(params.id, revisionNumber(params.number), body),
    readUpload: ({ params }) => uploads.read(params.id),
    followUpload: ({ params }) => uploads.follow(params.id),
    stopUpload: ({ params }) => uploads.stop(params.id),
  };
}
