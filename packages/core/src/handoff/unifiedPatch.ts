import { structuredPatch } from 'diff';
import { changedFiles } from '../source/changeSet.ts';
import type { Site, SiteFile } from '../source/site.ts';
import { encodeText } from '../source/textCoding.ts';

export interface UnifiedPatch {
  readonly bytes: Uint8Array;
  /** Changed files that are no text: a patch of this kind cannot say them. */
  readonly leftOut: readonly string[];
}

/**
 * What changed between two states as one patch that `git apply` and `patch -p1` take, byte for byte whatever the encodings and line
 * ends: every byte counts as a character, and a line ends at its line feed alone. Sheets come before pages.
 *
 * POSIX, "diff", "Diff -u or -U Output Format"; the header lines are Git's ("Generating patch text with -p").
 */
export function unifiedPatch(before: Site, after: Site): UnifiedPatch {
  const out: string[] = [];
  const leftOut: string[] = [];
  const changes = [...changedFiles(before, after)].sort(
    (a, b) => rank(a.path, after, before) - rank(b.path, after, before) || (a.path < b.path ? -1 : 1),
  );
  for (const { path } of changes) {
    const [old, now] = [before.files.get(path), after.files.get(path)];
    if (isBinary(old) || isBinary(now)) leftOut.push(path);
    else out.push(filePatch(path, old, now));
  }
  return { bytes: Uint8Array.from(out.join(''), (char) => char.charCodeAt(0)), leftOut };
}

const rank = (path: string, ...sites: readonly Site[]): number => {
  const kind = sites.map(({ files }) => files.get(path)?.kind).find((one) => one !== undefined);
  return kind === 'sheet' ? 0 : kind === 'page' ? 1 : 2;
};

/** As Git tells: a zero byte near the beginning. */
const isBinary = (file: SiteFile | undefined): boolean => file?.bytes.subarray(0, 8000).includes(0) ?? false;

function textOf(file: SiteFile | undefined): string {
  const parts: string[] = [];
  const bytes = file?.bytes ?? new Uint8Array();
  for (let i = 0; i < bytes.length; i += 8192) parts.push(String.fromCharCode(...bytes.subarray(i, i + 8192)));
  return parts.join('');
}

function filePatch(path: string, old: SiteFile | undefined, now: SiteFile | undefined): string {
  const [from, to] = [quoted(`a/${path}`), quoted(`b/${path}`)];
  const head = [`diff --git ${from} ${to}`];
  if (!old) head.push('new file mode 100644');
  if (!now) head.push('deleted file mode 100644');
  const { hunks } = structuredPatch('', '', textOf(old), textOf(now), undefined, undefined, {
    context: 3,
    stripTrailingCr: false,
  });
  // a name with a space ends at a tab for `patch`
  const named = (name: string): string => (name.includes(' ') && !name.startsWith('"') ? `${name}\t` : name);
  if (hunks.length > 0) head.push(`--- ${old ? named(from) : '/dev/null'}`, `+++ ${now ? named(to) : '/dev/null'}`);
  const body = hunks.map(({ oldStart, oldLines, newStart, newLines, lines }) =>
    [`@@ -${range(oldStart, oldLines)} +${range(newStart, newLines)} @@`, ...lines].map((line) => `${line}\n`).join(''),
  );
  return head.map((line) => `${line}\n`).join('') + body.join('');
}

const range = (start: number, lines: number): string => (lines === 1 ? String(start) : `${start},${lines}`);

/** Names with other characters than ASCII's visible ones are written in C's way, by their bytes in UTF-8. */
function quoted(name: string): string {
  if (/^[\x20-\x7e]*$/.test(name) && !/["\\]/.test(name)) return name;
  const bytes = [...encodeText(name, 'utf-8')!];
  return `"${bytes.map((byte) => (byte === 34 || byte === 92 ? `\\${String.fromCharCode(byte)}` : byte < 32 || byte > 126 ? `\\${byte.toString(8).padStart(3, '0')}` : String.fromCharCode(byte))).join('')}"`;
}
