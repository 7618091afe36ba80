/** Site path → a hash of the file's bytes. */
type Files = Readonly<Record<string, string>>;

/** What became of a site somewhere else, file by file, each list in path order. */
export interface OutsideChanges {
  readonly same: number;
  readonly changed: readonly string[];
  readonly fresh: readonly string[];
  readonly gone: readonly string[];
  /** Files of the same bytes under another path. */
  readonly moved: readonly { readonly from: string; readonly to: string }[];
  /** As they were in an earlier revision, there or not: what was saved since has not come to that place. */
  readonly older: readonly { readonly path: string; readonly revision: number }[];
}

/**
 * Compares the files found outside with the newest revision. What is as an earlier revision had it was not changed there: it is told
 * apart, with the newest such revision. `earlier`: revisions before the newest, the newest of them first.
 */
export function outsideChanges(
  now: Files,
  found: Files,
  earlier: readonly { readonly number: number; readonly files: Files }[],
): OutsideChanges {
  const older: { path: string; revision: number }[] = [];
  const [changed, fresh, gone]: [string[], string[], string[]] = [[], [], []];
  let same = 0;
  const paths = [...new Set([...Object.keys(now), ...Object.keys(found)])].sort();
  for (const path of paths) {
    const [here, there] = [own(now, path), own(found, path)];
    if (here === there) same++;
    else {
      const as = earlier.find(({ files }) => own(files, path) === there);
      if (as) older.push({ path, revision: as.number });
      else (here === undefined ? fresh : there === undefined ? gone : changed).push(path);
    }
  }
  const moved = movesIn(gone, fresh, now, found);
  const [from, to] = [new Set(moved.map((one) => one.from)), new Set(moved.map((one) => one.to))];
  return {
    same,
    changed,
    fresh: fresh.filter((path) => !to.has(path)),
    gone: gone.filter((path) => !from.has(path)),
    moved,
    older,
  };
}

const own = (files: Files, path: string): string | undefined => (Object.hasOwn(files, path) ? files[path] : undefined);

/** Of files with equal bytes the first pairs with the first. */
function movesIn(gone: readonly string[], fresh: readonly string[], now: Files, found: Files): OutsideChanges['moved'] {
  const waiting = new Map<string, string[]>();
  for (const path of gone) {
    const hash = now[path]!;
    const list = waiting.get(hash);
    if (list) list.push(path);
    else waiting.set(hash, [path]);
  }
  return fresh.flatMap((to) => {
    const from = waiting.get(found[to]!)?.shift();
    return from === undefined ? [] : [{ from, to }];
  });
}
