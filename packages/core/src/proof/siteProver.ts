import { CascadeSession, type PageCascade } from '../cascade/pageCascade.ts';
import { changedFiles } from '../source/changeSet.ts';
import { isServedAsXml, pagesOf, type Site, type SiteFile } from '../source/site.ts';
import { fileNameOf } from '../source/sitePath.ts';
import { sameBytes } from '../source/textCoding.ts';
import { elementNames } from '../survey/elementNames.ts';
import { TouchedPages } from '../survey/touchedPages.ts';
import { withoutNames } from './plainProperties.ts';
import { LookComparison, lookOf, type PageLook } from './pageLook.ts';
import type { PageProof, Proof } from './proof.ts';
import { provePage } from './provePage.ts';
import { worstVerdict } from './worstVerdict.ts';
import { othersOf, throughOthers, type Others } from './throughOthers.ts';

export interface ProofOptions {
  readonly onPage?: ((done: number, total: number) => void) | undefined;
  /** These pages; all when absent. */
  readonly only?: ReadonlySet<string>;
}

/**
 * Proves states of a site against one and the same beginning. How the pages looked at the beginning is kept, and so is the last
 * proof: of a state that is much like the last one only those pages are read again that the change can reach.
 */
export class SiteProver {
  private readonly before: Site;
  private readonly plain: Sides;
  private readonly looks = new Map<string, PageLook>();
  /** Told of each page of every proof that says nothing else. */
  onPage: ProofOptions['onPage'];
  private last: { readonly after: Site; readonly proof: Proof } | undefined;

  constructor(before: Site) {
    this.before = before;
    const session = new CascadeSession();
    this.plain = { before: session, after: session, comparison: new LookComparison(session), resources: [] };
  }

  /** The session in which pages of the beginning are read. */
  get session(): CascadeSession {
    return this.plain.before;
  }

  /** A page of the beginning that was read for something else, in this prover's session: it need not be read again. */
  note(site: Site, file: SiteFile, cascade: PageCascade): void {
    if (site === this.before) this.looks.set(lookKey(file.path, true), lookOf(cascade, site));
  }

  /**
   * Compares a state with the beginning, page by page, by the bytes they hold. A page that neither changed nor can reach
   * anything that did is the same without being read; its `elements` are 0. Pages that are only on one side are `added` or `removed`.
   */
  prove(after: Site, options: ProofOptions = {}): Proof {
    const plain = withoutNames(this.before, after);
    if (plain) return new SiteProver(plain[0]).prove(plain[1], { onPage: this.onPage, ...options });
    return this.compare(after, options);
  }

  private compare(after: Site, { onPage = this.onPage, only }: ProofOptions): Proof {
    const { before } = this;
    const run = this.makeRun(after);
    const known = this.last && stillTrue(this.last.after, after, this.last.proof);
    const pages = pagesOf(before).filter(({ path }) => only?.has(path) ?? true);
    const added = pagesOf(after).filter((file) => !before.files.has(file.path));
    const results: PageProof[] = [];
    for (const file of pages) {
      results.push(known?.get(file.path) ?? this.page(file, run));
      onPage?.(results.length, pages.length + added.length);
      // what embedded blocks compile to is few pages' own
      if (results.length % 100 === 0) run.sides.after.forgetPages();
    }
    for (const file of added) results.push({ ...unseen(file.path), verdict: 'added' });
    const proof: Proof = {
      verdict: worstVerdict(results),
      pages: results,
      elements: results.reduce((sum, page) => sum + page.elements, 0),
    };
    if (!only) this.last = { after, proof };
    return proof;
  }

  private makeRun(after: Site): Run {
    const { before } = this;
    const changed = changedFiles(before, after).map(({ path }) => path);
    const kindOf = (path: string): string => (before.files.get(path) ?? after.files.get(path))!.kind;
    const resources = changed.filter((path) => kindOf(path) === 'other');
    return {
      after,
      sides: resources.length === 0 ? this.plain : markedSides(before, after, resources),
      changed: new Set(changed),
      others: othersOf(before, after),
      touched: new TouchedPages(
        before,
        after,
        changed.filter((path) => kindOf(path) !== 'page'),
      ),
    };
  }

  private page(file: SiteFile, run: Run): PageProof {
    const now = run.after.files.get(file.path);
    if (!now) return { ...unseen(file.path), verdict: 'removed' };
    if (file.text !== undefined && !run.changed.has(file.path) && !run.touched.has(file)) return unseen(file.path);
    if (file.text === undefined || now.text === undefined) return proveOpaque(file, now, run);
    return withUsed(this.states(file, now, run), file, run);
  }

  /** With scripts, and without where `noscript` makes these two pages: the one that differs speaks, then the one in doubt. */
  private states(file: SiteFile, now: SiteFile, run: Run): PageProof {
    let worst: PageProof | undefined;
    for (const scripting of /<noscript/i.test(file.text!) ? [true, false] : [true]) {
      const result = this.state(file, now, scripting, run);
      if (result.verdict !== 'same' && result.verdict !== 'unsure') return result;
      if (!worst || worst.verdict === 'same') worst = result;
    }
    return worst!;
  }

  private state(file: SiteFile, now: SiteFile, scripting: boolean, run: Run): PageProof {
    const { sides, after } = run;
    const key = lookKey(file.path, scripting);
    let old: PageCascade | undefined;
    const openOld = (): PageCascade => (old ??= sides.before.open(this.before, file, scripting));
    const known = sides === this.plain ? this.looks.get(key) : undefined;
    const before = known ?? lookOf(openOld(), this.before);
    if (sides === this.plain) this.looks.set(key, before);
    const cascade = sides.after.open(after, now, scripting);
    if (scripting) elementNames(now, cascade.tree);
    if (sides.comparison.surelySame(before, lookOf(cascade, after)))
      return { ...unseen(file.path), elements: before.elements };
    return provePage({ cascade: openOld(), site: this.before }, { cascade, site: after });
  }
}

const lookKey = (path: string, scripting: boolean): string => `${scripting ? 'with' : 'without'} ${path}`;

/** How the two states are read. */
interface Sides {
  readonly before: CascadeSession;
  readonly after: CascadeSession;
  readonly comparison: LookComparison;
  /** Files that are neither pages nor sheets and whose bytes differ. */
  readonly resources: readonly string[];
}

interface Run {
  readonly after: Site;
  readonly sides: Sides;
  readonly changed: ReadonlySet<string>;
  /** Ways by which a page may use what changed, beside its links and imports. */
  readonly others: Others;
  readonly touched: TouchedPages;
}

/** References to files whose bytes differ say so on each side. */
function markedSides(before: Site, after: Site, resources: readonly string[]): Sides {
  const mark = (site: Site): Map<string, string> =>
    new Map(resources.map((path) => [path, ` ${site.files.get(path)?.hash ?? 'missing'}`]));
  const first = new CascadeSession({ fingerprints: mark(before) });
  const second = new CascadeSession({ fingerprints: mark(after), twin: first });
  return { before: first, after: second, comparison: new LookComparison(first), resources };
}

/** The pages that neither changed since nor can reach anything that did, with what was found; lines of what changed are others now. */
function stillTrue(then: Site, now: Site, proof: Proof): ReadonlyMap<string, PageProof> {
  const changed = changedFiles(then, now).map((one) => one.path);
  const kindOf = (path: string): string => (then.files.get(path) ?? now.files.get(path))!.kind;
  const others = changed.filter((path) => kindOf(path) !== 'page');
  if (others.some((path) => kindOf(path) === 'other')) return new Map();
  const touched = new TouchedPages(then, now, others);
  const pages = new Set(changed);
  return new Map(
    proof.pages.flatMap((page) => {
      const file = now.files.get(page.path);
      const stands =
        file?.text !== undefined && !pages.has(page.path) && !touched.has(file) && !tellsPlaces(page, changed);
      return stands ? [[page.path, page] as const] : [];
    }),
  );
}

const tellsPlaces = ({ causes, doubts, notes }: PageProof, paths: readonly string[]): boolean =>
  causes.length + doubts.length + notes.length > 0 &&
  paths.some((path) => JSON.stringify([causes, doubts, notes]).includes(JSON.stringify(path).slice(1, -1)));

/** Adds what the page uses in another way than by links and imports: files it names, and what these, scripts or frames in it name. */
function withUsed(result: PageProof, file: SiteFile, { sides, others }: Run): PageProof {
  const text = file.text!;
  const used = sides.resources.filter((path) => text.includes(fileNameOf(path)));
  const notes = [...result.notes, ...used.map((path) => `${path}, which the page names, is another file now.`)];
  const doubts = [...result.doubts, ...throughOthers(text, others)];
  const verdict = notes.length > result.notes.length ? 'differs' : doubts.length > 0 && result.verdict === 'same' ? 'unsure' : result.verdict; // prettier-ignore
  return { ...result, verdict, notes, doubts };
}

/** A page that cannot be read is the same only when it did not change and names no file that did. */
function proveOpaque(file: SiteFile, now: SiteFile, run: Run): PageProof {
  if (sameBytes(file.bytes, now.bytes) && !run.touched.has(file)) return unseen(file.path);
  const why =
    file.isTooMuch || now.isTooMuch
      ? 'The page holds more than a million tags, more than is looked at, so it cannot be compared.'
      : isServedAsXml(file.path)
        ? 'The page is sent as XML (its name ends in .xhtml), which is not read here, so it cannot be compared.'
        : 'The page does not encode back to its own bytes, or browsers do not agree on its encoding, so it cannot be compared.';
  return { ...unseen(file.path), verdict: 'unsure', doubts: [{ sentence: why, elements: [] }] };
}

const unseen = (path: string): PageProof => ({
  path,
  verdict: 'same',
  elements: 0,
  differingElements: 0,
  causes: [],
  notes: [],
  doubts: [],
});
