import fs from 'node:fs/promises';
import type { Request, RequestHandler } from 'express';
import multer from 'multer';
import { limits } from '../archive/limits.ts';
import { uploadFolder } from '../archive/uploadFolder.ts';
import { Refusal } from './refusal.ts';

/** A zip that was sent, as a file. It goes with its request. */
export interface UploadedArchive {
  readonly path: string;
}

/** Reads one zip sent as `archive` in multipart/form-data to disk, with a few short fields beside it. */
export function uploadArchive(): RequestHandler {
  const storage = multer.diskStorage({ destination: (_request, _file, done) => done(null, uploadFolder()) });
  return multer({ storage, limits: { fileSize: limits.bytes, files: 1, fields: 10, fieldSize: 8000 } }).single(
    'archive',
  );
}

/** What a request brought, and how it is let go of. */
export function archiveOf({ file }: Request): {
  readonly archive: () => UploadedArchive;
  readonly letGo: () => Promise<void>;
} {
  return {
    archive() {
      if (!file)
        throw new Refusal(
          'bad-request',
          'There is no archive in the request. Send one zip as "archive" in multipart/form-data.',
        );
      return { path: file.path };
    },
    letGo: async () => (file ? fs.rm(file.path, { force: true }) : undefined),
  };
}
