import { attributeOf, type ElementNode } from '../page/nodes.ts';
import type { Edit, LineIndex } from '../source/span.ts';
import type { Check, CheckContext, CheckedPage, CheckedSheet, CheckedSite, CheckMaker } from './check.ts';
import { says } from './declarations.ts';
import { FindingGroups, type FindingGroup } from './findingGroup.ts';
import type { FindingKind, FoundFinding } from './finding.ts';
import { attributeEdit } from './retarget.ts';
import { mediaSlip } from './text/mediaSlips.ts';
import type { TextFinding } from './text/textFinding.ts';
import { structureFindings } from './text/textFindings.ts';

const kinds = ['brace', 'unclosed', 'refused-selector', 'media-query', 'misplaced-rule', 'lost-declaration', 'strange-space', 'duplicate-rule'] as const satisfies readonly FindingKind[]; // oxfmt-ignore
type Kind = (typeof kinds)[number];

/** How texts of sheets and blocks are put together, and media that hold nowhere. */
export const sheetTexts: CheckMaker = { kinds, make: (context) => new SheetTexts(context) };

/** Blocks are often copies: what was found in a text is found once, as long as the site is checked. */
const found = new WeakMap<CheckContext, Map<string, readonly TextFinding[]>>();

function findingsOf(text: string, context: CheckContext): readonly TextFinding[] {
  let known = found.get(context);
  if (!known) found.set(context, (known = new Map<string, readonly TextFinding[]>()));
  let list = known.get(text);
  if (!list) {
    if (known.size > 2000) known.clear();
    known.set(text, (list = structureFindings(text)));
  }
  return list;
}

class SheetTexts implements Check {
  private readonly groups = new Map<Kind, FindingGroups>(kinds.map((kind) => [kind, new FindingGroups()]));
  private readonly labels = new Map<string, string>();
  private readonly context: CheckContext;

  constructor(context: CheckContext) {
    this.context = context;
  }

  sheet(sheet: CheckedSheet): void {
    for (const one of findingsOf(sheet.text, this.context)) this.add(one, sheet, 0);
  }

  page(page: CheckedPage): void {
    for (const { source } of page.blocks) {
      if (source.idle !== undefined || source.foreign) continue;
      const { start, end } = source.contents;
      for (const one of findingsOf(page.text.slice(start, end), this.context)) this.add(one, page, start, page.path);
    }
    for (const element of page.tree.elements)
      if (element.tag === 'link' || element.tag === 'style') this.medium(page, element);
  }

  private medium(page: CheckedPage, element: ElementNode): void {
    const media = attributeOf(element, 'media');
    const slip = media === undefined ? undefined : mediaSlip(media);
    if (!slip) return;
    const edit = slip.right === undefined ? undefined : attributeEdit(page, element, 'media', slip.right);
    const span = { start: Math.max(element.start, 0), end: element.startTagEnd };
    const mend = edit ? { mend: { label: `Make it \`${slip.right!}\``, edits: [edit] } } : {};
    this.add({ kind: 'media-query', severity: 'wrong', span, sentence: slip.sentence, ...mend }, page, 0, page.path);
  }

  private add(
    { kind, span, sentence, mend }: TextFinding,
    holder: { readonly path: string; readonly lines: LineIndex },
    offset: number,
    page?: string,
  ): void {
    // how often a rule stands in one file does not matter: the line is in its place
    const subject = sentence.replace(/ in line \d+/, '').replace(/\.$/, '');
    const group = this.groups.get(kind as Kind)!.about(subject);
    if (page !== undefined) group.page(page);
    group.at(holder, span.start + offset);
    if (!mend) return;
    this.labels.set(`${kind} ${subject}`, mend.label);
    group.mend(holder.path, ...mend.edits.map((edit) => moved(edit, offset)));
  }

  merge(page: SheetTexts): void {
    for (const [kind, groups] of page.groups) this.groups.get(kind)!.merge(groups);
    for (const [id, label] of page.labels) this.labels.set(id, label);
  }

  findings(site: CheckedSite): readonly FoundFinding[] {
    return [...this.groups].flatMap(([kind, groups]) => groups.all.map((group) => this.findingOf(kind, group, site)));
  }

  private findingOf(kind: Kind, group: FindingGroup, site: CheckedSite): FoundFinding {
    const where = says(group, site).replace(/ says?$/, '');
    const label = this.labels.get(`${kind} ${group.subject}`);
    return group.finding(kind, `${where}: ${group.subject}`, {
      ...(label === undefined ? {} : { mend: plain(label) }),
      look: 'See it',
    });
  }
}

const plain = (label: string): string => label.replaceAll('`', '');

const moved = ({ span, text }: Edit, by: number): Edit => ({
  span: { start: span.start + by, end: span.end + by },
  text,
});
