import type { SourcePlace } from '../page/styleSources.ts';
import type { SiteFile } from '../source/site.ts';
import type { Edit } from '../source/span.ts';
import {
  readingOf,
  type PageReading,
  type ReadBlock,
  type ReadGroup,
  type ReadTag,
  type ReadUnit,
} from './pageReading.ts';
import { carrySkeleton } from './skeleton.ts';
import { Shift } from './shift.ts';

/** What edits did to a page's sources. */
export interface SourceChange {
  /** Blocks that are not there any more. */
  readonly gone: ReadonlySet<ReadBlock>;
  /** Rules that left their blocks. */
  readonly left: ReadonlySet<ReadUnit>;
  /** A link that one of the edits brings in, `offset` characters into its text. */
  readonly link: { readonly edit: Edit; readonly offset: number; readonly source: SourcePlace } | undefined;
}

/** The reading of a page after edits that take rules out of blocks, or blocks out, and link a sheet: what parsing it would give. */
export function shiftedReading(
  page: PageReading,
  file: SiteFile,
  edits: readonly Edit[],
  { gone, left, link }: SourceChange,
): PageReading {
  // what counts there hangs on what stands before it
  if (/content-security-policy|<base\b/i.test(page.text)) return readingOf(file)!;
  const shift = new Shift(edits);
  carrySkeleton(page.file, file);
  const blockAt = new Map(page.blocks.map((block) => [block.sourceIndex, block]));
  const sources: SourcePlace[] = [];
  const blocks: ReadBlock[] = [];
  let pending = link;
  const putLink = (): void => {
    if (!pending) return;
    const start = shift.of(pending.edit) + pending.offset;
    sources.push({ ...pending.source, span: { start, end: start + pending.source.span.end } });
    pending = undefined;
  };
  page.sources.forEach((source, index) => {
    if (pending && pending.edit.span.start <= source.span.start) putLink();
    const block = blockAt.get(index);
    if (block && gone.has(block)) return;
    const span = shift.span(source.span);
    const place =
      source.kind === 'linked' ? { ...source, span } : { ...source, span, contents: shift.span(source.contents) };
    if (block)
      blocks.push({
        ...block,
        ...shiftedUnits(block, left, shift),
        sourceIndex: sources.length,
        source: place as ReadBlock['source'],
      });
    sources.push(place);
  });
  putLink();
  const { names, headEnd, body, root } = page;
  return {
    ...page,
    file,
    path: file.path,
    text: file.text!,
    sources,
    blocks,
    names: link ? names.with(['link']) : names,
    headEnd: headEnd && shift.span(headEnd),
    body: body && shiftedTag(body, shift),
    root: root && shiftedTag(root, shift),
  };
}

function shiftedUnits(
  block: ReadBlock,
  left: ReadonlySet<ReadUnit>,
  shift: Shift,
): Pick<ReadBlock, 'units' | 'trailingComments'> {
  const groups = new Map<ReadGroup, ReadGroup>();
  const groupOf = (group: ReadGroup | undefined): ReadGroup | undefined => {
    if (!group) return undefined;
    let now = groups.get(group);
    if (!now) groups.set(group, (now = { span: shift.span(group.span), bare: group.bare }));
    return now;
  };
  return {
    units: block.units
      .filter((unit) => !left.has(unit))
      .map((unit) => ({
        ...unit,
        span: shift.span(unit.span),
        lead: shift.start(unit.lead),
        parent: groupOf(unit.parent),
      })),
    trailingComments: block.trailingComments.map((span) => shift.span(span)),
  };
}

function shiftedTag(body: ReadTag, shift: Shift): ReadTag {
  // an implied tag stands nowhere
  if (body.start < 0) return body;
  const { attributeSpans } = body;
  const spans =
    attributeSpans &&
    Object.fromEntries(
      Object.entries(attributeSpans).map(([name, { startOffset, endOffset }]) => [
        name,
        { startOffset: shift.start(startOffset), endOffset: shift.end(endOffset) },
      ]),
    );
  return { ...body, start: shift.start(body.start), startTagEnd: shift.end(body.startTagEnd), attributeSpans: spans };
}
