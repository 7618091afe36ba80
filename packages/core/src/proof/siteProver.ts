import { CascadeSession, type PageCascade } from '../cascade/pageCascade.ts';
import { parseFile, type PageTree } from '../page/parsePage.ts';
import { changedFiles } from '../source/changeSet.ts';
import { pagesOf, type Site, type SiteFile } from '../source/site.ts';
import { fileNameOf } from '../source/sitePath.ts';
import { NotHere } from '../source/packedFile.ts';
import { elementNames } from '../survey/elementNames.ts';
import { TouchedPages } from '../survey/touchedPages.ts';
import { withoutNames } from './plainProperties.ts';
import { takeShared, type ProofPartner } from './partner.ts';
import { LookComparison, lookOf, type PageLook } from './pageLook.ts';
import type { PageProof, Proof } from './proof.ts';
import { provePage } from './provePage.ts';
import { proveOpaque, unseen } from './unreadPages.ts';
import { withDoubts } from './withDoubts.ts';
import { worstVerdict } from './worstVerdict.ts';
import { stillTrue } from './stillTrue.ts';
import { LinksTakenIn } from './linksTakenIn.ts';
import { isTakenInAlone, TakenIn, takenInDoubt } from './takenIn.ts';
import { sheetsByScripts } from './sheetsByScripts.ts';
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

  private partner: ProofPartner | undefined;
  /** The pages that are the partner's to prove, every second one. */
  private readonly share: ReadonlySet<string>;

  /** `partner`: proves half of the pages where many have to be read. */
  constructor(before: Site, partner?: ProofPartner) {
    this.before = before;
    this.partner = partner?.helps(before) ? partner : undefined;
    this.share = new Set(this.partner ? pagesOf(before).flatMap(({ path }, i) => (i % 2 === 1 ? path : [])) : []);
    const session = new CascadeSession();
    this.plain = { before: session, after: session, comparison: new LookComparison(session), resources: [] };
  }

  /** The session in which pages of the beginning are read. */
  get session(): CascadeSession {
    return this.plain.before;
  }

  /** A page of the beginning that was read for something else, in this prover's session: it need not be read again. */
  note(site: Site, file: SiteFile, cascade: PageCascade): void {
    if (site === this.before && !this.share.has(file.path))
      this.looks.set(lookKey(file.path, true), lookOf(cascade, site));
  }

  /** A large state will be proved soon. */
  prepare(): void {
    this.partner?.prepare(this.before, this.share);
  }

  /** Reads how a page looks at the beginning, as far as that is not the partner's. `tree`: where it was parsed already. */
  look(file: SiteFile, tree?: PageTree): void {
    if (file.text === undefined || this.share.has(file.path) || this.before.files.get(file.path) !== file) return;
    const opened = (): PageCascade => this.session.openTree(this.before, file, tree ?? parseFile(file));
    for (const scripting of scriptings(file)) this.lookBefore(file, scripting, scripting ? opened : undefined);
    if (this.looks.size % pagesTogether === 0) this.session.forgetPages();
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

  /**
   * Of these pages, all without `var()` put in place, as a partner knows the two sites: a page whose proof asks for what is not
   * here is left out.
   */
  proveShare(after: Site, only: ReadonlySet<string>, onPage: (done: number) => void): readonly PageProof[] {
    const run = this.makeRun(after);
    const found: PageProof[] = [];
    for (const [i, file] of pagesOf(this.before)
      .filter(({ path }) => only.has(path))
      .entries()) {
      try {
        found.push(this.unread(file, run) ?? this.page(file, run));
      } catch (error) {
        if (!(error instanceof NotHere)) throw error;
      }
      onPage(i + 1);
      if (i % pagesTogether === 0) run.sides.after.forgetPages();
    }
    return found;
  }

  private compare(after: Site, { onPage = this.onPage, only }: ProofOptions): Proof {
    const { before } = this;
    const run = this.makeRun(after);
    const known = this.last && stillTrue(this.last.after, after, this.last.proof);
    const pages = pagesOf(before).filter(({ path }) => only?.has(path) ?? true);
    const added = pagesOf(after).filter((file) => !before.files.has(file.path));
    const found = new Map<string, PageProof>();
    const tell = (more = 0): void => onPage?.(found.size + more, pages.length + added.length);
    const reading = pages.filter((file) => {
      const earlier = known?.get(file.path);
      const isTaking = shownBy(file, run).length > 0 || (earlier !== undefined && isTakenInAlone(earlier));
      const said = (isTaking ? undefined : earlier) ?? this.unread(file, run);
      if (!said) return true;
      found.set(file.path, said);
      tell();
      return false;
    });
    this.read(reading, run, found, tell);
    const results = pages.map(({ path }) => found.get(path)!);
    for (const file of added) results.push({ ...unseen(file.path), verdict: 'added' });
    const proof: Proof = {
      verdict: worstVerdict(results),
      pages: results,
      elements: results.reduce((sum, page) => sum + page.elements, 0),
    };
    if (!only) this.last = { after, proof };
    return proof;
  }

  /** Proves pages, half of many elsewhere. */
  private read(
    pages: readonly SiteFile[],
    run: Run,
    found: Map<string, PageProof>,
    tell: (more?: number) => void,
  ): void {
    const theirs = this.partner && pages.length >= fewestShared ? pages.filter(({ path }) => this.share.has(path)) : [];
    const shared = theirs.length > 0 ? this.partner?.begin(this.before, run.after, this.share, theirs) : undefined;
    const own = shared ? pages.filter(({ path }) => !this.share.has(path)) : pages;
    try {
      this.readHere(own, run, found, () => tell(shared?.done()));
      if (shared) takeShared(shared, run.after, found, tell);
    } catch (error) {
      shared?.stop();
      throw error;
    }
    const left = theirs.filter(({ path }) => !found.has(path));
    if (left.length * 2 > theirs.length) this.partner = undefined;
    this.readHere(left, run, found, tell);
  }

  private readHere(pages: readonly SiteFile[], run: Run, found: Map<string, PageProof>, tell: () => void): void {
    for (const [i, file] of pages.entries()) {
      found.set(file.path, this.page(file, run));
      tell();
      if (i % pagesTogether === 0) run.sides.after.forgetPages();
    }
  }

  private makeRun(after: Site): Run {
    const { before } = this;
    const changed = changedFiles(before, after).map(({ path }) => path);
    const kindOf = (path: string): string => (before.files.get(path) ?? after.files.get(path))!.kind;
    const others = othersOf(before, after);
    const resources = changed.filter((path) => kindOf(path) === 'other');
    return {
      after,
      sides: resources.length === 0 ? this.plain : markedSides(before, after, resources),
      changed: new Set(changed),
      others,
      linksTakenIn: new LinksTakenIn(before, others.sheets),
      takenIn: new TakenIn(
        before,
        changed.filter((path) => after.files.has(path)),
      ),
      touched: new TouchedPages(
        before,
        after,
        changed.filter((path) => kindOf(path) !== 'page'),
      ),
    };
  }

  /** What is said without reading the page; undefined where it has to be read. */
  private unread(file: SiteFile, run: Run): PageProof | undefined {
    if (!run.after.files.has(file.path)) return { ...unseen(file.path), verdict: 'removed' };
    const isSafe =
      file.text !== undefined &&
      !run.changed.has(file.path) &&
      !run.touched.has(file) &&
      shownBy(file, run).length === 0;
    return isSafe ? unseen(file.path) : undefined;
  }

  private page(file: SiteFile, run: Run): PageProof {
    const now = run.after.files.get(file.path)!;
    if (file.text === undefined || now.text === undefined) return proveOpaque(file, now, run.touched.has(file));
    return withUsed(this.states(file, now, run), file, run);
  }

  /** With scripts, and without where `noscript` makes these two pages: the one that differs speaks, then the one in doubt. */
  private states(file: SiteFile, now: SiteFile, run: Run): PageProof {
    let worst: PageProof | undefined;
    for (const scripting of scriptings(file)) {
      const result = this.state(file, now, scripting, run);
      if (result.verdict !== 'same' && result.verdict !== 'unsure') return result;
      if (!worst || worst.verdict === 'same') worst = result;
    }
    return worst!;
  }

  private state(file: SiteFile, changed: SiteFile, scripting: boolean, run: Run): PageProof {
    const { sides, after } = run;
    const tree = parseFile(changed, scripting);
    const isOne = isOneTree(file, changed);
    let old: PageCascade | undefined;
    const openOld = (): PageCascade =>
      (old ??= sides.before.openTree(this.before, file, isOne ? tree : parseFile(file, scripting)));
    const before = sides === this.plain ? this.lookBefore(file, scripting, openOld) : lookOf(openOld(), this.before);
    const cascade = sides.after.openTree(after, changed, tree);
    const loaded = scripting ? sheetsByScripts({ cascade, site: after }, run.others) : [];
    if (scripting) elementNames(changed, cascade.tree);
    const now = lookOf(cascade, after, isOne ? before : undefined);
    if (sides.comparison.surelySame(before, now))
      return withDoubts({ ...unseen(file.path), elements: before.elements }, loaded);
    const sameStacks = sides.comparison.sameStacks(before, now);
    const found = provePage({ cascade: openOld(), site: this.before }, { cascade, site: after }, { sameStacks });
    return withDoubts(found, loaded);
  }

  private lookBefore(
    file: SiteFile,
    scripting: boolean,
    open = (): PageCascade => this.session.open(this.before, file, scripting),
  ): PageLook {
    const key = lookKey(file.path, scripting);
    let look = this.looks.get(key);
    if (!look) this.looks.set(key, (look = lookOf(open(), this.before)));
    return look;
  }
}

/** What embedded blocks compile to is few pages' own, and much: it is kept for so many pages. */
const pagesTogether = 50;
/** With fewer pages to read it does not pay to share them. */
const fewestShared = 200;
/** With scripts, and without where `noscript` makes these two pages. */
const scriptings = ({ text }: SiteFile): readonly boolean[] =>
  text !== undefined && /<noscript/i.test(text) ? [true, false] : [true];

/** Where only sheets changed, both states are of one tree. */
const isOneTree = (before: SiteFile, after: SiteFile): boolean =>
  before.text === after.text && before.isRun === after.isRun;

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
  /** Pages that others show. */
  readonly takenIn: TakenIn;
  readonly linksTakenIn: LinksTakenIn;
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

/** The pages it shows of which something is not the same. */
const shownBy = (file: SiteFile, { takenIn, linksTakenIn }: Run): readonly string[] => [
  ...new Set([...takenIn.of(file), ...linksTakenIn.of(file)]),
];

/** Adds what the page uses in another way than by links and imports: files it names, and what these, scripts or frames in it name. */
function withUsed(result: PageProof, file: SiteFile, run: Run): PageProof {
  const { sides, others } = run;
  const text = file.text!;
  const used = sides.resources.filter((path) => text.includes(fileNameOf(path)));
  const notes = [...result.notes, ...used.map((path) => `${path}, which the page names, is another file now.`)];
  const told: PageProof = used.length > 0 ? { ...result, verdict: 'differs', notes } : result;
  return withDoubts(told, [...throughOthers(text, others), ...shownBy(file, run).map(takenInDoubt)]);
}
