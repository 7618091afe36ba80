import type { PageBandsReply } from '@syndeton/contract';

type Bands = PageBandsReply['bands'];

/** A stretch of a line; lit when it carries styling. */
export interface Piece {
  readonly text: string;
  readonly band: number | undefined;
  readonly rule: number | undefined;
}

/** A line of the page's text, or a run of lines without styling in its place. */
export type SourceLine =
  | {
      readonly kind: 'line';
      readonly number: number;
      readonly pieces: readonly Piece[];
      /** The embedded block it stands in. */
      readonly block: number | undefined;
    }
  | {
      readonly kind: 'fold';
      readonly from: number;
      readonly to: number;
      readonly block: number | undefined;
      readonly rules: number;
    };

interface Lit {
  readonly start: number;
  readonly end: number;
  readonly band: number;
  readonly rule: number | undefined;
}

/** Lines shown before the first one that bears style. */
const opening = 4;
/** A block longer than this folds in the middle. */
const longBlock = 24;

/**
 * The text as lines, lit where it carries styling. Runs without styling fold to one line of words, long blocks in the middle;
 * lines in `kept` (from 1) and folds in `unfolded` (by their first line) stay open.
 */
export function sourceLines(
  text: string,
  bands: Bands,
  kept: ReadonlySet<number>,
  unfolded: ReadonlySet<number>,
): readonly SourceLine[] {
  const lit = litSpans(bands);
  const out: SourceLine[] = [];
  const plain = { from: 0, to: 0, block: undefined as number | undefined, rules: 0 };
  const held: SourceLine[] = [];
  const flush = (): void => {
    if (held.length > 2 && !unfolded.has(plain.from)) out.push({ kind: 'fold', ...plain });
    else out.push(...held);
    held.length = 0;
  };
  let at = 0;
  let next = 0;
  text.split(/\r\n|\r|\n/).forEach((content, i) => {
    const number = i + 1;
    const end = at + content.length;
    // spans of one kind never overlap, so those before stay behind
    while (next < lit.length && lit[next]!.end <= at) next++;
    const here = upTo(lit, next, end).filter((span) => span.start < Math.max(end, at + 1) && span.end > at);
    const block = blockAt(bands, at, end);
    const line: SourceLine = { kind: 'line', number, pieces: piecesOf(content, at, here), block };
    const inner = block === undefined ? undefined : middleOf(bands[block]!, number);
    const foldable =
      !kept.has(number) && (block === undefined ? here.length === 0 && number > opening : inner === true);
    if (held.length > 0 && (!foldable || plain.block !== block)) flush();
    if (foldable) {
      if (held.length === 0) Object.assign(plain, { from: number, block, rules: 0 });
      plain.to = number;
      if (block !== undefined) plain.rules += here.filter((span) => span.rule !== undefined && span.start >= at).length;
      held.push(line);
    } else out.push(line);
    at = end + (text.startsWith('\r\n', end) ? 2 : 1);
  });
  flush();
  return out;
}

/** The spans that may touch a line that ends at `end`. */
function upTo(lit: readonly Lit[], from: number, end: number): readonly Lit[] {
  let to = from;
  while (to < lit.length && lit[to]!.start <= end) to++;
  return lit.slice(from, to);
}

/** Whether a line of a long block is one that folds: its first and last lines stay. */
function middleOf(band: Bands[number], number: number): boolean {
  return band.endLine - band.line > longBlock && number > band.line + 10 && number < band.endLine - 1;
}

function blockAt(bands: Bands, start: number, end: number): number | undefined {
  const found = bands.findIndex(
    (band) =>
      band.kind === 'embedded' &&
      band.span !== null &&
      band.span.start < Math.max(end, start + 1) &&
      band.span.end > start,
  );
  return found < 0 ? undefined : found;
}

/** All that is lit: tags of links, rules in blocks, attributes; in the order of the text. */
function litSpans(bands: Bands): readonly Lit[] {
  return bands
    .flatMap((band, index): Lit[] => {
      const rules = band.rules.flatMap((rule, r) => rule.spans.map((span) => ({ ...span, band: index, rule: r })));
      const tag =
        band.span !== null && band.kind !== 'embedded' ? [{ ...band.span, band: index, rule: undefined }] : [];
      return [...tag, ...rules];
    })
    .sort((a, b) => a.start - b.start);
}

function piecesOf(content: string, at: number, lit: readonly Lit[]): readonly Piece[] {
  const out: Piece[] = [];
  let done = 0;
  for (const { start, end, band, rule } of lit) {
    const from = Math.max(start - at, done);
    const to = Math.min(end - at, content.length);
    if (to <= from) continue;
    if (from > done) out.push({ text: content.slice(done, from), band: undefined, rule: undefined });
    out.push({ text: content.slice(from, to), band, rule });
    done = to;
  }
  if (done < content.length || out.length === 0)
    out.push({ text: content.slice(done), band: undefined, rule: undefined });
  return out;
}
