import { crc32 } from 'node:zlib';
import iconv from 'iconv-lite';
import type yauzl from 'yauzl';
import { Refusal } from '../http/refusal.ts';

/** Encodings in which archives that are not UTF-8 may write names, as people know them. */
export const oldNameEncodings = { cp437: 'IBM 437', cp850: 'IBM 850', 'windows-1252': 'Windows 1252' } as const;

export type OldNameEncoding = keyof typeof oldNameEncodings;

/**
 * The names of an archive's entries, in their order. Those marked as UTF-8, with a Unicode path beside them, or that are UTF-8 by their
 * bytes are that; the others are of an old encoding nobody wrote down: refused with a sample of each unless it is given.
 *
 * APPNOTE.TXT, "Language Encoding (EFS)" and "Info-ZIP Unicode Path Extra Field".
 */
export function entryNames(entries: readonly yauzl.Entry[], given: OldNameEncoding | undefined): readonly string[] {
  const known = entries.map(unicodeName);
  const old = entries.filter((_, i) => known[i] === undefined).map(rawName);
  if (old.length > 0 && given === undefined) throw unknownEncoding(old);
  return entries.map((entry, i) => known[i] ?? iconv.decode(rawName(entry), given!));
}

/** Strings are not decoded by the reader. */
const rawName = (entry: yauzl.Entry): Buffer => entry.fileName as unknown as Buffer;

function unicodeName(entry: yauzl.Entry): string | undefined {
  const raw = rawName(entry);
  const beside = (entry.extraFields as readonly { readonly id: number; readonly data: Buffer }[]).find(
    ({ id, data }) => id === 0x7075 && data.length > 5 && data[0] === 1 && data.readUInt32LE(1) === crc32(raw),
  );
  try {
    return new TextDecoder('utf-8', { fatal: true, ignoreBOM: true }).decode(beside ? beside.data.subarray(5) : raw);
  } catch {
    return undefined;
  }
}

function unknownEncoding(old: readonly Buffer[]): Refusal {
  const samples = (Object.keys(oldNameEncodings) as OldNameEncoding[]).map(
    (name) => `${iconv.decode(old[0]!, name)} (${oldNameEncodings[name]}, names=${name})`,
  );
  return new Refusal(
    'bad-archive',
    `${old.length === 1 ? 'A name' : `${old.length} names`} in the archive ${old.length === 1 ? 'is' : 'are'} not UTF-8, and how to read them is not written there. The first may be ${samples.join(', ')}. Choose the folder itself, make the archive anew, or say which over the API.`,
  );
}
