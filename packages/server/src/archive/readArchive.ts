import { crc32 } from 'node:zlib';
import yauzl from 'yauzl';
import { describePathProblem, fileKindOf, parseSitePath } from '@syndeton/core';
import { Refusal } from '../http/refusal.ts';
import { entryNames, type OldNameEncoding } from './entryNames.ts';
import { LeftOut, noPartOfASite, type LeftOutFile } from './leftOut.ts';
import { limits } from './limits.ts';

export interface Reading {
  /** After each file: how many of how many are unpacked, and what was left out so far. */
  readonly onFile?: (done: number, total: number, leftOut: readonly LeftOutFile[]) => void;
  readonly signal?: AbortSignal;
  /** How names that are not UTF-8 are to be read. */
  readonly names?: OldNameEncoding | undefined;
}

export interface ReadArchive {
  /** The one folder all files were in, with its slash; empty when there was none. It is put back on the way out. */
  readonly prefix: string;
  readonly files: ReadonlyMap<string, Buffer>;
  readonly leftOut: readonly LeftOutFile[];
}

/**
 * The files of a zip, given as bytes or by the path of its file. Sizes are counted while unpacking, so that an archive that lies about them is stopped too, also those of files
 * left out; what came is held against its checksum. Refused whole: what is no zip or is damaged, encrypted entries, paths that leave
 * the site, names that stand twice or as a file and a folder, names nobody can read, too much.
 */
export async function readArchive(
  archive: Buffer | string,
  { onFile, signal, names }: Reading = {},
): Promise<ReadArchive> {
  const zip = await open(archive);
  try {
    if (zip.entryCount > limits.entries)
      throw new Refusal(
        'archive-too-large',
        `The archive holds ${zip.entryCount.toLocaleString('en')} entries, more than 40,000. Put only the site into it.`,
      );
    const entries: yauzl.Entry[] = [];
    for await (const entry of entriesOf(zip)) entries.push(entry);
    const named = entryNames(entries, names);
    const taking = new Taking(zip);
    for (const [i, entry] of entries.entries()) {
      signal?.throwIfAborted();
      onFile?.(i + 1, entries.length, taking.leftOut.list);
      await taking.take(entry, named[i]!);
    }
    return taking.done();
  } finally {
    zip.close();
  }
}

/** An archive while its entries are taken one after the other. */
class Taking {
  readonly leftOut = new LeftOut();
  private readonly files = new Map<string, Buffer>();
  private total = 0;
  private kept = 0;
  private readonly zip: yauzl.ZipFile;

  constructor(zip: yauzl.ZipFile) {
    this.zip = zip;
  }

  async take(entry: yauzl.Entry, name: string): Promise<void> {
    if (name.endsWith('/')) return;
    const parsed = parseSitePath(name);
    if (!parsed.ok) throw new Refusal('bad-archive', describePathProblem(parsed.problem));
    const path = parsed.value;
    const reason = notOfSite(path, entry);
    if (reason !== undefined) {
      this.leftOut.add(path, reason, await this.keep(path, entry));
      return;
    }
    if (entry.isEncrypted()) throw new Refusal('bad-archive', `${name} is encrypted. Make a zip without a password.`);
    if (this.files.has(path))
      throw new Refusal('bad-archive', `${path} stands in the archive twice. Each name may stand once.`);
    if (this.files.size >= limits.files)
      throw new Refusal('archive-too-large', 'The archive holds more than 10,000 files, the most a site may have.');
    const content = await readEntry(this.zip, entry, path, limits.bytes - this.total);
    this.total += content.length;
    if (fileKindOf(path) !== 'other' && content.length > limits.textBytes)
      throw new Refusal('archive-too-large', `${path} is larger than 20 MB, the most a page or sheet may have.`);
    this.files.set(path, content);
  }

  /** Small files that somebody may want after all, as long as there is room for such. */
  private async keep(path: string, entry: yauzl.Entry): Promise<Buffer | undefined> {
    const room = Math.min(limits.keptBytes, limits.allKeptBytes - this.kept);
    if (isLink(entry) || entry.isEncrypted() || noPartOfASite.test(path) || entry.uncompressedSize > room)
      return undefined;
    const content = await readEntry(this.zip, entry, path, room);
    this.kept += content.length;
    return content;
  }

  done(): ReadArchive {
    const { files, leftOut } = this;
    for (const path of files.keys())
      for (let at = path.indexOf('/'); at >= 0; at = path.indexOf('/', at + 1))
        if (files.has(path.slice(0, at)))
          throw new Refusal(
            'bad-archive',
            `${path.slice(0, at)} is a file in the archive and a folder too (of ${path}). A name may be one of them.`,
          );
    const { prefix } = files.size === 0 ? { prefix: '' } : withoutPrefix(files, []);
    // names that every object of the language has: nowhere are they looked up by chance
    for (const path of [...files.keys()].filter((one) => one.slice(prefix.length) in {})) {
      leftOut.add(path, 'a file of this name cannot be kept');
      files.delete(path);
    }
    if (files.size === 0)
      throw new Refusal(
        'bad-archive',
        'The archive holds no file of a site. Put the pages and their sheets and pictures into it.',
      );
    return withoutPrefix(files, leftOut.list);
  }
}

const damaged = (error: Error): Refusal =>
  new Refusal('bad-archive', `This is no zip we can read (${error.message}). A zip with the site's files is allowed.`);

function open(archive: Buffer | string): Promise<yauzl.ZipFile> {
  const options = { lazyEntries: true, validateEntrySizes: true, decodeStrings: false, autoClose: false };
  return new Promise((resolve, reject) => {
    const opened = (error: Error | null, zip: yauzl.ZipFile): void => (error ? reject(damaged(error)) : resolve(zip));
    if (typeof archive === 'string') yauzl.open(archive, options, opened);
    else yauzl.fromBuffer(archive, options, opened);
  });
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
  zip.on('error', (error: Error) => push(damaged(error)));
  for (;;) {
    zip.readEntry();
    while (queue.length === 0) await new Promise<void>((resolve) => (wake = resolve));
    const item = queue.shift();
    if (item instanceof Error) throw item;
    if (item === undefined) return;
    yield item;
  }
}

function readEntry(zip: yauzl.ZipFile, entry: yauzl.Entry, path: string, room: number): Promise<Buffer> {
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
      stream.on('end', () => {
        const content = Buffer.concat(parts);
        if (crc32(content) === entry.crc32) resolve(content);
        else
          reject(
            new Refusal(
              'bad-archive',
              `${path} is damaged in the archive: its checksum is another one. Make the archive anew.`,
            ),
          );
      });
      stream.on('error', (e: Error) => reject(damaged(e)));
    });
  });
}

const isLink = (entry: yauzl.Entry): boolean => ((entry.externalFileAttributes >>> 16) & 0o170000) === 0o120000;

function notOfSite(path: string, entry: yauzl.Entry): string | undefined {
  if (isLink(entry)) return 'it is a link to another file; put the file itself into the archive';
  if (noPartOfASite.test(path)) return 'it is not part of a site';
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
