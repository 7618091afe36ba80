import yauzl from 'yauzl';
import { describePathProblem, fileKindOf, parseSitePath } from '@syndeton/core';
import { Refusal } from '../http/refusal.ts';
import { limits } from './limits.ts';

export interface LeftOutFile {
  readonly path: string;
  readonly reason: string;
  /** Small ones are kept, so that they can be taken in after all. */
  readonly content?: Buffer;
}

export interface Reading {
  /** After each file: how many of how many are unpacked, and what was left out so far. */
  readonly onFile?: (done: number, total: number, leftOut: readonly LeftOutFile[]) => void;
  readonly signal?: AbortSignal;
}

export interface ReadArchive {
  /** The one folder all files were in, with its slash; empty when there was none. It is put back on the way out. */
  readonly prefix: string;
  readonly files: ReadonlyMap<string, Buffer>;
  readonly leftOut: readonly LeftOutFile[];
}

/**
 * The files of a zip. Sizes are counted while unpacking, so that an archive that lies about them is stopped too.
 * Refused whole: what is no zip or is damaged, encrypted entries, paths that leave the site, names that stand twice, too much.
 */
export async function readArchive(bytes: Buffer, { onFile, signal }: Reading = {}): Promise<ReadArchive> {
  const zip = await open(bytes);
  const files = new Map<string, Buffer>();
  const leftOut: LeftOutFile[] = [];
  let total = 0;
  let done = 0;
  try {
    for await (const entry of entriesOf(zip)) {
      signal?.throwIfAborted();
      onFile?.(++done, zip.entryCount, leftOut);
      const name = entry.fileName;
      if (name.endsWith('/')) continue;
      const path = parseSitePath(name);
      if (!path.ok) throw new Refusal('bad-archive', describePathProblem(path.problem));
      const reason = notOfSite(path.value, entry);
      if (reason !== undefined) {
        const isSmall = !isLink(entry) && !entry.isEncrypted() && entry.uncompressedSize <= limits.keptBytes;
        const content = isSmall ? await readEntry(zip, entry, limits.keptBytes) : undefined;
        leftOut.push({ path: path.value, reason, ...(content ? { content } : {}) });
        continue;
      }
      if (entry.isEncrypted()) throw new Refusal('bad-archive', `${name} is encrypted. Make a zip without a password.`);
      if (files.has(path.value))
        throw new Refusal('bad-archive', `${path.value} stands in the archive twice. Each name may stand once.`);
      if (files.size >= limits.files)
        throw new Refusal('archive-too-large', 'The archive holds more than 10,000 files, the most a site may have.');
      const content = await readEntry(zip, entry, limits.bytes - total);
      total += content.length;
      if (fileKindOf(path.value) !== 'other' && content.length > limits.textBytes)
        throw new Refusal(
          'archive-too-large',
          `${path.value} is larger than 20 MB, the most a page or sheet may have.`,
        );
      files.set(path.value, content);
    }
  } finally {
    zip.close();
  }
  if (files.size === 0)
    throw new Refusal(
      'bad-archive',
      'The archive holds no file of a site. Put the pages and their sheets and pictures into it.',
    );
  return withoutPrefix(files, leftOut);
}

const damaged = (error: Error): Refusal =>
  new Refusal('bad-archive', `This is no zip we can read (${error.message}). A zip with the site's files is allowed.`);

function open(bytes: Buffer): Promise<yauzl.ZipFile> {
  return new Promise((resolve, reject) => {
    yauzl.fromBuffer(
      bytes,
      { lazyEntries: true, validateEntrySizes: true, strictFileNames: false, autoClose: false },
      (error, zip) => (error ? reject(pathRefusal(error) ?? damaged(error)) : resolve(zip)),
    );
  });
}

/** yauzl itself refuses climbing and absolute names. */
function pathRefusal(error: Error): Refusal | undefined {
  const found = /^(?:invalid relative path|absolute path|invalid characters in fileName): (.*)$/.exec(error.message);
  return found
    ? new Refusal(
        'bad-archive',
        `The path ${found[1]} leaves the site. Paths counted from the site's folder are allowed.`,
      )
    : undefined;
}

async function* entriesOf(zip: yauzl.ZipFile): AsyncGenerator<yauzl.Entry> {
  const queue: (yauzl.Entry | Error | undefined)[] = [];
  let wake: (() => void) | undefined;
  const push = (item: yauzl.Entry | Error | undefined): void => {
    queue.push(item);
    wake?.();
  };
  zip.on('entry', push);
  zip.on('end', () => push(undefined));
  zip.on('error', (error: Error) => push(pathRefusal(error) ?? damaged(error)));
  for (;;) {
    zip.readEntry();
    while (queue.length === 0) await new Promise<void>((resolve) => (wake = resolve));
    const item = queue.shift();
    if (item instanceof Error) throw item;
    if (item === undefined) return;
    yield item;
  }
}

function readEntry(zip: yauzl.ZipFile, entry: yauzl.Entry, room: number): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    zip.openReadStream(entry, (error, stream) => {
      if (error) {
        reject(damaged(error));
        return;
      }
      const parts: Buffer[] = [];
      let size = 0;
      stream.on('data', (part: Buffer) => {
        size += part.length;
        if (size > room) {
          stream.destroy();
          reject(
            new Refusal('archive-too-large', 'Unpacked, the archive holds more than 200 MB, the most a site may have.'),
          );
        } else parts.push(part);
      });
      stream.on('end', () => resolve(Buffer.concat(parts)));
      stream.on('error', (e: Error) => reject(damaged(e)));
    });
  });
}

const isLink = (entry: yauzl.Entry): boolean => ((entry.externalFileAttributes >>> 16) & 0o170000) === 0o120000;

function notOfSite(path: string, entry: yauzl.Entry): string | undefined {
  if (isLink(entry)) return 'it is a link to another file; put the file itself into the archive';
  if (/(^|\/)(__MACOSX|\.git|\.svn|\.hg)\//.test(path)) return 'it is not part of a site';
  if (/(^|\/)(\.DS_Store|Thumbs\.db|desktop\.ini)$/i.test(path)) return 'it is not part of a site';
  return undefined;
}

function withoutPrefix(files: ReadonlyMap<string, Buffer>, leftOut: readonly LeftOutFile[]): ReadArchive {
  const [first] = files.keys();
  const prefix = first!.slice(0, first!.indexOf('/') + 1);
  if (prefix === '' || ![...files.keys()].every((path) => path.startsWith(prefix)))
    return { prefix: '', files, leftOut };
  const short = (path: string): string => (path.startsWith(prefix) ? path.slice(prefix.length) : path);
  return {
    prefix,
    files: new Map([...files].map(([path, content]) => [short(path), content])),
    leftOut: leftOut.map((one) => ({ ...one, path: short(one.path) })),
  };
}
