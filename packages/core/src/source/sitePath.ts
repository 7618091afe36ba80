import { fail, succeed, type Result } from './result.ts';

export type PathProblem =
  | { readonly kind: 'empty-path' }
  | { readonly kind: 'path-leaves-site'; readonly path: string }
  | { readonly kind: 'absolute-path'; readonly path: string }
  | { readonly kind: 'illegal-character'; readonly path: string; readonly character: string }
  | { readonly kind: 'path-too-long'; readonly path: string };

/**
 * A site path: `/`-separated, no leading slash, no `.` or `..` segment, no control character, no half of a surrogate pair.
 * Backslashes, as some archives write them, count as `/`.
 */
export function parseSitePath(given: string): Result<string, PathProblem> {
  const path = given.replaceAll('\\', '/');
  if (path === '') return fail({ kind: 'empty-path' });
  if (path.startsWith('/') || /^[A-Za-z]:/.test(path)) return fail({ kind: 'absolute-path', path: given });
  const bad = [...path].find((c) => c < ' ' || c === '\u007f' || /\p{Surrogate}/u.test(c));
  if (bad !== undefined) return fail({ kind: 'illegal-character', path: given, character: bad });
  if (path.length > 1000) return fail({ kind: 'path-too-long', path: given });
  const segments: string[] = [];
  for (const segment of path.split('/')) {
    if (segment === '' || segment === '.') continue;
    if (segment === '..') return fail({ kind: 'path-leaves-site', path: given });
    segments.push(segment);
  }
  return segments.length === 0 ? fail({ kind: 'empty-path' }) : succeed(segments.join('/'));
}

export function describePathProblem(problem: PathProblem): string {
  switch (problem.kind) {
    case 'empty-path':
      return 'A file has no name. A path such as css/site.css is allowed.';
    case 'path-leaves-site':
      return `The path ${problem.path} climbs out of the site with "..". Paths inside the site are allowed.`;
    case 'absolute-path':
      return `The path ${problem.path} is absolute. Paths counted from the site's folder are allowed.`;
    case 'illegal-character':
      return `The path ${JSON.stringify(problem.path)} holds a character that no file name has (U+${problem.character.codePointAt(0)!.toString(16).padStart(4, '0').toUpperCase()}).`;
    case 'path-too-long':
      return `The path ${problem.path.slice(0, 60)}… is longer than 1,000 characters.`;
  }
}

/** The folder of a path with its trailing slash; empty for a file in the root. */
export const folderOf = (path: string): string => path.slice(0, path.lastIndexOf('/') + 1);

/** The last segment. */
export const fileNameOf = (path: string): string => path.slice(path.lastIndexOf('/') + 1);

/** The relative path from the folder of `from` to `to`, both site paths: `css/a.css`, `../css/a.css`. */
export function relativePath(from: string, to: string): string {
  const there = to.split('/');
  const here = from.split('/').slice(0, -1);
  let shared = 0;
  while (shared < here.length && shared < there.length - 1 && here[shared] === there[shared]) shared++;
  return '../'.repeat(here.length - shared) + there.slice(shared).join('/');
}

/** In lower case, without the point; empty for a name without one. */
export const extensionOf = (path: string): string => /\.([^./]+)$/.exec(path)?.[1]?.toLowerCase() ?? '';

const pagePattern = /\.(?:html?|xhtml|shtml)$/i;
const sheetPattern = /\.css$/i;

/** Endings of files that servers run before they send them, and that may hold whole pages. Common practice. */
export const runEndings: ReadonlySet<string> = new Set(['php', 'phtml', 'php3', 'php4', 'php5', 'asp', 'aspx', 'jsp', 'cfm']); // oxfmt-ignore

export type FileKind = 'page' | 'sheet' | 'other';

/** `pageTypes`: further endings of pages, without the point and in lower case. */
export function fileKindOf(path: string, pageTypes?: ReadonlySet<string>): FileKind {
  if (pagePattern.test(path) || pageTypes?.has(extensionOf(path))) return 'page';
  return sheetPattern.test(path) ? 'sheet' : 'other';
}
