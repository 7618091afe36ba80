import { trimmed } from '../source/space.ts';
import { folderOf, relativePath } from '../source/sitePath.ts';

/**
 * What a reference points at. `site` paths are decoded (percent escapes resolved) and hold no query or fragment;
 * `suffix` is the query and fragment as written. `local` is a fragment of the same document, `empty` loads nothing.
 */
export type Target =
  | { readonly kind: 'site'; readonly path: string; readonly suffix: string }
  | { readonly kind: 'remote'; readonly url: string }
  | { readonly kind: 'data'; readonly url: string }
  | { readonly kind: 'local'; readonly fragment: string }
  | { readonly kind: 'outside'; readonly reference: string; readonly clamped: string }
  | { readonly kind: 'empty' };

/**
 * Where references of one source count from: a site path (of the page or the sheet), or, with an absolute
 * `<base href>`, an address outside the site.
 */
export type Base = { readonly kind: 'site'; readonly path: string } | { readonly kind: 'remote'; readonly url: string };

export const siteBase = (path: string): Base => ({ kind: 'site', path });

/**
 * Resolves a reference as a browser would on a server whose root is the site's folder.
 *
 * URL Standard, "URL parsing" (for http), and RFC 3986, "Relative Resolution". A path that climbs above the root is `outside`:
 * a server stops at its own root (`clamped`, counted from the site's folder), but the site's folder need not be that root.
 */
export function resolveReference(reference: string, base: Base): Target {
  const ref = reference.replace(/^[\0-\x20]+|[\0-\x20]+$/g, '').replace(/[\t\n\r]/g, '');
  if (ref === '') return { kind: 'empty' };
  if (ref.startsWith('#')) return { kind: 'local', fragment: ref };
  if (/^data:/i.test(ref)) return { kind: 'data', url: ref };
  if (/^[a-z][a-z0-9+.-]*:/i.test(ref) || /^[\\/]{2}/.test(ref)) return { kind: 'remote', url: ref };
  if (base.kind === 'remote') return { kind: 'remote', url: `${base.url} ${ref}` };
  const { path, suffix } = splitSuffix(ref);
  if (path === '') return { kind: 'site', path: base.path, suffix };
  const slashed = path.replaceAll('\\', '/');
  const merged = slashed.startsWith('/') ? slashed.slice(1) : folderOf(base.path) + slashed;
  const { clean, climbed } = removeDotSegments(merged);
  if (climbed) return { kind: 'outside', reference: ref, clamped: decodePath(clean) };
  return { kind: 'site', path: decodePath(clean), suffix };
}

function splitSuffix(ref: string): { path: string; suffix: string } {
  const at = ref.search(/[?#]/);
  return at < 0 ? { path: ref, suffix: '' } : { path: ref.slice(0, at), suffix: ref.slice(at) };
}

/** RFC 3986, "Remove Dot Segments", and whether the path climbs above the root. Keeps a trailing slash. */
function removeDotSegments(path: string): { readonly clean: string; readonly climbed: boolean } {
  const out: string[] = [];
  let climbed = false;
  const segments = path.split('/');
  segments.forEach((segment, i) => {
    const last = i === segments.length - 1;
    const plain = segment.replace(/%2e/gi, '.');
    if (plain === '.') {
      if (last) out.push('');
    } else if (plain === '..') {
      if (out.pop() === undefined) climbed = true;
      if (last) out.push('');
    } else out.push(segment);
  });
  return { clean: out.join('/'), climbed };
}

/** Percent escapes resolved, as a server looks the file up; an escape that is not UTF-8 stays as written. */
export function decodePath(path: string): string {
  try {
    return decodeURIComponent(path);
  } catch {
    return path;
  }
}

/** A site path percent-encoded for a URL; `/` stays. */
export const encodePath = (path: string): string => path.split('/').map(encodeSegment).join('/');

const encodeSegment = (segment: string): string =>
  encodeURIComponent(segment).replace(/%(?:40|3A|2B|2C|3D|24|26|3B)/g, (escape) => decodeURIComponent(escape));

/**
 * The reference rewritten so that it points at the same thing from `to`, a sheet's site path, or undefined when that
 * cannot be said. References that do not depend on their base (root-relative, absolute, `data:`, fragments, empty) stay.
 */
export function rebaseReference(reference: string, from: Base, to: string): string | undefined {
  const given = trimmed(reference);
  const target = resolveReference(given, from);
  if (target.kind !== 'site') return independent(target, from) ? reference : undefined;
  if (/^[\\/]/.test(given)) return reference;
  const { path: written, suffix } = splitSuffix(given.replace(/[\t\n\r]/g, ''));
  if (written === '') return undefined; // "?x" names the page itself
  if (from.kind === 'site' && folderOf(from.path) === folderOf(to)) return reference;
  const rebased = relativePath(to, target.path);
  return withoutScheme(encodedLike(written) ? encodePath(rebased) : escapeSpecial(rebased)) + suffix;
}

function independent(target: Target, from: Base): boolean {
  if (target.kind === 'outside') return false;
  return target.kind !== 'remote' || from.kind === 'site';
}

const encodedLike = (written: string): boolean => /%[0-9a-f]{2}/i.test(written);

/** Keeps what an author wrote readable: only what would end or change the path is escaped. */
const escapeSpecial = (path: string): string => path.replace(/[%?#]/g, (c) => encodeURIComponent(c));

/** A first segment with a colon would read as a scheme. */
const withoutScheme = (path: string): string => (/^[^/]*:/.test(path) ? `./${path}` : path);
