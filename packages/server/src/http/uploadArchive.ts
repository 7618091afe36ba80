import type { Request, RequestHandler } from 'express';
import multer from 'multer';
import { limits } from '../archive/limits.ts';
import { Refusal } from './refusal.ts';

/** Reads one zip sent as `archive` in multipart/form-data, with a few short fields beside it. */
export const uploadArchive = (): RequestHandler =>
  multer({
    storage: multer.memoryStorage(),
    limits: { fileSize: limits.bytes, files: 1, fields: 10, fieldSize: 8000 },
  }).single('archive');

export function archiveOf(request: Request): Buffer {
  if (!request.file)
    throw new Refusal(
      'bad-request',
      'There is no archive in the request. Send one zip as "archive" in multipart/form-data.',
    );
  return request.file.buffer;
}
