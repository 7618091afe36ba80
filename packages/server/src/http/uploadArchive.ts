import type { Request, RequestHandler } from 'express';
import multer from 'multer';
import { limits } from '../archive/limits.ts';
import { Refusal } from './refusal.ts';

/** Reads one zip sent as `archive` in multipart/form-data, with a few short fields beside it. */
export const uploadArchive = (): RequestHandler =>
  multer({ storage: multer.memoryStorage(), limits: { fileSize: limits.bytes, files: 1, fields: 10, fieldSize: 2000 } }).single('archive'); // prettier-ignore

export function archiveIn(
  request: Request,
): { readonly archive: Buffer } & Readonly<Record<string, unknown>> & { readonly name: string | undefined } {
  if (!request.file)
    throw new Refusal(
      'bad-request',
      'There is no archive in the request. Send one zip as "archive" in multipart/form-data.',
    );
  const fields = (request.body ?? {}) as Record<string, string>;
  return { ...fields, name: fields['name'], archive: request.file.buffer };
}
