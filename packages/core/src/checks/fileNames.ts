import type { Site } from '../source/site.ts';
import { fileNameOf } from '../source/sitePath.ts';
import { encodePath } from '../values/urls.ts';
import type { Check, CheckContext, CheckedPage, CheckedSheet, CheckMaker } from './check.ts';
import { FindingGroups } from './findingGroup.ts';
import type { FoundFinding } from './finding.ts';
import { code } from './words.ts';

/** File names that work on one computer and break on a server: spaces, characters with a meaning in addresses, two names that differ in case only. */
export const fileNames: CheckMaker = {
  kinds: ['file-name'],
  make: (context) => new FileNames(context),
};

/** The first ones are enough to look for in every page. */
const mostNames = 200;
const troubled = new WeakMap<Site, readonly string[]>();

/** Files whose names make trouble. */
function troubledIn(site: Site): readonly string[] {
  let known = troubled.get(site);
  if (!known)
    troubled.set(
      site,
      (known = [...site.files.keys()].filter((path) => troubleIn(fileNameOf(path)) !== undefined).slice(0, mostNames)),
    );
  return known;
}

class FileNames implements Check {
  private readonly groups = new FindingGroups();
  private readonly context: CheckContext;

  constructor(context: CheckContext) {
    this.context = context;
  }

  sheet(sheet: CheckedSheet): void {
    this.uses(sheet);
  }

  page(page: CheckedPage): void {
    this.uses(page);
  }

  /** Pages and sheets that name such a file, as it is or escaped. */
  private uses(holder: Pick<CheckedSheet, 'path' | 'text' | 'lines'>): void {
    for (const path of troubledIn(this.context.site)) {
      const name = fileNameOf(path);
      const at = [name, encodePath(name)].map((one) => holder.text.indexOf(one)).find((i) => i >= 0);
      if (at !== undefined) this.groups.about(path).at(holder, at);
    }
  }

  merge(page: FileNames): void {
    this.groups.merge(page.groups);
  }

  findings(): readonly FoundFinding[] {
    const byLower = new Map<string, string>();
    return [...this.context.site.files.values()].flatMap(({ path, kind }) => {
      const twin = byLower.get(path.toLowerCase());
      byLower.set(path.toLowerCase(), path);
      const why =
        twin === undefined
          ? troubleIn(path)
          : `${code(twin)} differs from it in capitals only; on many computers they are one file`;
      if (why === undefined) return [];
      const group = this.groups.about(path);
      const used = group.places.length > 0;
      for (const place of group.places)
        if (this.context.site.files.get(place.path)?.kind === 'page') group.page(place.path);
      if (!used) group.places.push({ path, line: 1, column: 1 });
      if (kind === 'page') group.page(path);
      return [
        group.finding('file-name', `${code(path)} ${twin === undefined ? '' : 'and '}${why}`, {
          look: used ? 'Where it is used' : 'Look at it',
        }),
      ];
    });
  }
}

/** RFC 3986, "Reserved Characters": what must be escaped in an address, which hand-written links often forget. */
function troubleIn(path: string): string | undefined {
  if (/\s/.test(path)) return 'has a space in its name; servers and links often part it there';
  const bad = /[?#%&"'<>|*:\\^`{}[\]]/.exec(path);
  if (bad) return `has ${code(bad[0])} in its name, which means something else in an address`;
  // oxlint-disable-next-line no-control-regex -- all but ASCII is meant
  return /[^\x00-\x7f]/.test(path)
    ? 'has letters beyond a–z in its name, which servers spell in more than one way'
    : undefined;
}
