import { applyEdits, describeEditProblem, type EditProblem } from './applyEdits.ts';
import { fail, succeed, type Result } from './result.ts';
import { describePathProblem, parseSitePath, type PathProblem } from './sitePath.ts';
import { makeSiteFile, makeWrittenFile, type Site, type SiteFile } from './site.ts';
import type { Edit } from './span.ts';
import { encodeText } from './textCoding.ts';

/** Edits of one file, measured on the file with this hash. */
export interface FileEdits {
  readonly path: string;
  readonly hash: string;
  readonly edits: readonly Edit[];
}

/** One described change of a site: files created (in UTF-8 unless said), edited by spans, deleted. */
export interface ChangeSet {
  readonly created: readonly { readonly path: string; readonly text: string; readonly encoding?: string }[];
  readonly edited: readonly FileEdits[];
  readonly deleted: readonly string[];
}

export const emptyChangeSet: ChangeSet = { created: [], edited: [], deleted: [] };

export type ChangeProblem =
  | { readonly kind: 'file-exists'; readonly path: string }
  | { readonly kind: 'bad-file-path'; readonly path: string; readonly problem: PathProblem | undefined }
  | { readonly kind: 'file-missing'; readonly path: string }
  | { readonly kind: 'file-changed'; readonly path: string }
  | { readonly kind: 'file-opaque'; readonly path: string }
  | { readonly kind: 'not-in-encoding'; readonly path: string; readonly encoding: string }
  | { readonly kind: 'bad-edit'; readonly path: string; readonly edit: EditProblem };

/**
 * The site after the change set; the given site is not touched. Only here are files written.
 * An edit measured on another version of a file, or on a file that does not encode back, is a problem; then nothing is applied.
 */
export function applyChangeSet(site: Site, changes: ChangeSet): Result<Site, ChangeProblem> {
  const files = new Map(site.files);
  for (const path of changes.deleted) {
    if (!files.delete(path)) return fail({ kind: 'file-missing', path });
  }
  for (const { path, text, encoding = 'utf-8' } of changes.created) {
    // whatever an operation asks for, nothing is ever written outside the site
    const place = parseSitePath(path);
    if (!place.ok || place.value !== path)
      return fail({ kind: 'bad-file-path', path, problem: place.ok ? undefined : place.problem });
    if (files.has(path)) return fail({ kind: 'file-exists', path });
    const inTheWay = foldersOf(path).find((folder) => files.has(folder));
    if (inTheWay !== undefined) return fail({ kind: 'file-exists', path: inTheWay });
    const bytes = encodeText(text, encoding);
    if (!bytes) return fail({ kind: 'not-in-encoding', path, encoding });
    files.set(path, makeSiteFile(path, bytes, site.pageTypes));
  }
  for (const change of changes.edited) {
    const edited = editFile(files.get(change.path), change);
    if (!edited.ok) return edited;
    files.set(change.path, edited.value);
  }
  return succeed({ ...site, files });
}

/** The folders a path stands in, innermost first. */
function foldersOf(path: string): readonly string[] {
  const out: string[] = [];
  for (let at = path.lastIndexOf('/'); at > 0; at = path.lastIndexOf('/', at - 1)) out.push(path.slice(0, at));
  return out;
}

/** What a file last became, as long as some site holds it, and by which edits: a draft planned again makes most pages what they were. */
const lastMade = new WeakMap<SiteFile, { readonly key: string; readonly made: WeakRef<SiteFile> }>();

const editsKey = (edits: readonly Edit[]): string =>
  edits.map(({ span, text }) => `${span.start} ${span.end} ${text.length} ${text}`).join('');

function editFile(file: SiteFile | undefined, change: FileEdits): Result<SiteFile, ChangeProblem> {
  const { path } = change;
  if (!file) return fail({ kind: 'file-missing', path });
  if (file.hash !== change.hash) return fail({ kind: 'file-changed', path });
  if (file.text === undefined || file.encoding === undefined) return fail({ kind: 'file-opaque', path });
  const key = editsKey(change.edits);
  const last = lastMade.get(file);
  const before = last?.key === key ? last.made.deref() : undefined;
  if (before) return succeed(before);
  const text = applyEdits(file.text, change.edits);
  if (!text.ok) return fail({ kind: 'bad-edit', path, edit: text.problem });
  const bytes = encodeText(text.value, file.encoding);
  if (!bytes) return fail({ kind: 'not-in-encoding', path, encoding: file.encoding });
  const made = makeWrittenFile(file, text.value, bytes, file.encoding);
  lastMade.set(file, { key, made: new WeakRef(made) });
  return succeed(made);
}

export function describeChangeProblem(problem: ChangeProblem): string {
  switch (problem.kind) {
    case 'file-exists':
      return `There is already a file ${problem.path}. Choose another name.`;
    case 'bad-file-path':
      return problem.problem
        ? describePathProblem(problem.problem)
        : `The path ${problem.path} is not written as paths of a site are: css/site.css is.`;
    case 'file-missing':
      return `There is no file ${problem.path} in this site.`;
    case 'file-changed':
      return `${problem.path} was changed since this was planned. Plan it again on the file as it is now.`;
    case 'file-opaque':
      return `${problem.path} does not encode back to its own bytes, so it is carried along but never edited.`;
    case 'not-in-encoding':
      return `${problem.path} is written in ${problem.encoding}, which has no place for a character of the new text.`;
    case 'bad-edit':
      return `${problem.path}: ${describeEditProblem(problem.edit)}`;
  }
}

/** The paths whose bytes differ between two sites, and what became of each. */
export function changedFiles(
  before: Site,
  after: Site,
): readonly { readonly path: string; readonly change: 'created' | 'edited' | 'deleted' }[] {
  const out: { path: string; change: 'created' | 'edited' | 'deleted' }[] = [];
  for (const [path, file] of after.files) {
    const old = before.files.get(path);
    if (!old) out.push({ path, change: 'created' });
    else if (old !== file && (old.hash !== file.hash || old.size !== file.size)) out.push({ path, change: 'edited' });
  }
  for (const path of before.files.keys()) if (!after.files.has(path)) out.push({ path, change: 'deleted' });
  return out.sort((a, b) => (a.path < b.path ? -1 : 1));
}
