import { fail, succeed, type Result } from '../source/result.ts';
import type { Site } from '../source/site.ts';
import { describePathProblem, parseSitePath, type PathProblem } from '../source/sitePath.ts';

export type SheetPathProblem =
  | { readonly kind: 'bad-path'; readonly path: PathProblem }
  | { readonly kind: 'unsafe-name'; readonly path: string; readonly character: string }
  | { readonly kind: 'other-ending'; readonly path: string }
  | { readonly kind: 'clash'; readonly path: string; readonly existing: string };

/**
 * The site path for a sheet named by a person: `.css` is added when left out. An existing sheet's own path is taken as it is.
 *
 * Refused: spaces and characters that servers or other systems read differently, another ending, and a name that differs from
 * an existing file's in case only, or is a folder's, or stands in a folder whose name a file has.
 */
export function parseSheetPath(given: string, site: Site): Result<string, SheetPathProblem> {
  const trimmed = given.trim();
  if (site.files.get(trimmed)?.kind === 'sheet') return succeed(trimmed);
  const parsed = parseSitePath(trimmed);
  if (!parsed.ok) return fail({ kind: 'bad-path', path: parsed.problem });
  const bad = /[^A-Za-z0-9._\-/]/.exec(parsed.value) ?? /(?:^|\/)(\.)/.exec(parsed.value);
  if (bad) return fail({ kind: 'unsafe-name', path: given, character: bad[1] ?? bad[0] });
  const name = parsed.value.slice(parsed.value.lastIndexOf('/') + 1);
  const path = /\.css$/i.test(name) ? parsed.value : `${parsed.value}.css`;
  if (/\.(html?|xhtml|shtml|js|txt|php|scss|less)$/i.test(name)) return fail({ kind: 'other-ending', path: given });
  if (/^\.css$/i.test(name)) return fail({ kind: 'unsafe-name', path: given, character: '.' });
  const clash = [...site.files.keys()].find(
    (other) =>
      other.toLowerCase() === path.toLowerCase() ||
      other.toLowerCase().startsWith(`${path.toLowerCase()}/`) ||
      path.toLowerCase().startsWith(`${other.toLowerCase()}/`),
  );
  return clash === undefined || clash === path ? succeed(path) : fail({ kind: 'clash', path, existing: clash });
}

export function describeSheetPathProblem(problem: SheetPathProblem): string {
  switch (problem.kind) {
    case 'bad-path':
      return describePathProblem(problem.path);
    case 'unsafe-name':
      return `The name ${problem.path} holds ${problem.character === ' ' ? 'a space' : `“${problem.character}”`}. Letters, digits, dots, hyphens and underscores are safe on every server: css/site.css.`;
    case 'other-ending':
      return `The name ${problem.path} does not end in .css. A sheet's name ends in .css, or has no ending and gets it.`;
    case 'clash':
      return `${problem.path} would stand beside ${problem.existing}, which many systems read as the same name. Choose another.`;
  }
}
