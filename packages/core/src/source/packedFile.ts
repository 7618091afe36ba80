import { makeTextPage, type Site, type SiteFile } from './site.ts';

/** A file as plain data, for another thread: of a page that encodes back its text is enough. `bytes`: a copy of their own. */
export type PackedFile = Omit<SiteFile, 'bytes'> & { readonly bytes?: Uint8Array<ArrayBuffer> };

/** What is said of a page that the other thread is not asked about: that it is there, and when it is another one. */
export const packedName = ({ path, kind, hash, size }: SiteFile): PackedFile => ({ path, kind, hash, size });

export function packedFile(file: SiteFile): PackedFile {
  const { path, kind, hash, size, encoding, text, isTooMuch, isRun } = file;
  const said = {
    ...(encoding === undefined ? {} : { encoding }),
    ...(text === undefined ? {} : { text }),
    ...(isTooMuch ? { isTooMuch } : {}),
    ...(isRun ? { isRun } : {}),
  };
  const isText = kind === 'page' && text !== undefined;
  return { path, kind, hash, size, ...said, ...(isText ? {} : { bytes: Uint8Array.from(file.bytes) }) };
}

export function unpackedFile(packed: PackedFile): SiteFile {
  const { text, encoding, bytes } = packed;
  if (packed.kind === 'page' && text !== undefined && encoding !== undefined)
    return makeTextPage({ ...packed, encoding }, text);
  return bytes ? { ...packed, bytes } : new NamedPage(packed);
}

/** Something asks for what a page holds that is here by name only. */
export class NotHere extends Error {}

/** A page that another thread holds: nobody can take it for an empty one. */
class NamedPage implements SiteFile {
  readonly kind = 'page';
  readonly path: string;
  readonly hash: string;
  readonly size: number;

  constructor({ path, hash, size }: PackedFile) {
    this.path = path;
    this.hash = hash;
    this.size = size;
  }

  get text(): never {
    throw new NotHere(this.path);
  }

  get bytes(): never {
    throw new NotHere(this.path);
  }
}

/** What of a site is no file. */
export type SiteTerms = Omit<Site, 'files'>;

export function termsOf({ pageTypes, absent, leftOut }: Site): SiteTerms {
  return { ...(pageTypes ? { pageTypes } : {}), ...(absent ? { absent } : {}), ...(leftOut ? { leftOut } : {}) };
}
