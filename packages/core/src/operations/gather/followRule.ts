import { Type } from '@sinclair/typebox';
import { count } from '../../checks/words.ts';
import type { FileEdits } from '../../source/changeSet.ts';
import { lineEndOf } from '../../source/lineEnds.ts';
import { indentationAt } from '../../source/removal.ts';
import { fail, succeed } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';
import type { Edit } from '../../source/span.ts';
import { closed, fields, operationType, type ProblemSentences } from '../operationType.ts';
import { asWrittenIn, blocksOf, rulesOfFamily, type FoundRule, type PageBlocks } from './ruleInPages.ts';

/** Pages that lack rules take them as others hold them, in a block of their own. They may look different. */
export interface FollowRule {
  readonly kind: 'follow-rule';
  readonly rules: readonly { readonly family: string; readonly version: string }[];
  readonly pages: readonly string[];
}

export type FollowProblem =
  | { readonly kind: 'no-rule-to-follow'; readonly family: string }
  | { readonly kind: 'cannot-follow'; readonly page: string; readonly why: 'no-block' | 'has-it' | 'references' };

export const followRule = operationType<FollowRule, FollowProblem>()({
  kind: 'follow-rule',
  choosesLook: true,
  schema: Type.Object(
    {
      kind: Type.Literal('follow-rule'),
      rules: Type.Array(Type.Object({ family: Type.String(), version: Type.String() }, closed), {
        minItems: 1,
        maxItems: 1000,
      }),
      pages: fields.pages,
    },
    closed,
  ),
  plan(site, { rules, pages }) {
    const kept: FoundRule[] = [];
    for (const { family, version } of rules) {
      const held = rulesOfFamily(site, family);
      const one = held.find(({ unit }) => unit.version === version && unit.closed && unit.groups.length === 0);
      if (!one) return fail({ kind: 'no-rule-to-follow', family });
      const holding = pages.find((path) => held.some(({ file }) => file.path === path));
      if (holding !== undefined) return fail({ kind: 'cannot-follow', page: holding, why: 'has-it' });
      kept.push(one);
    }
    const edited: FileEdits[] = [];
    for (const path of pages) {
      const page = pageTaking(site, path);
      if (!page) return fail({ kind: 'cannot-follow', page: path, why: 'no-block' });
      const edits = insertions(page, kept);
      if (!edits) return fail({ kind: 'cannot-follow', page: path, why: 'references' });
      edited.push({ path, hash: page.file.hash, edits });
    }
    const [first, ...others] = kept.map(({ unit }) => unit.label);
    const what = others.length === 0 ? first! : `${first!} and ${count(others.length, 'more rule')}`;
    return succeed({
      changes: { created: [], edited, deleted: [] },
      sentence: `Let ${count(pages.length, 'more page')} say ${what} as others do`,
    });
  },
  problems: {
    'no-rule-to-follow': ({ family }) => `No page holds ${family} in that version, by itself.`,
    'cannot-follow': ({ page, why }) =>
      ({
        'no-block': `${page} has no block with rules that could take another one.`,
        'has-it': `${page} has that rule already, in its own way.`,
        references: `The addresses in the rule cannot be counted from ${page}.`,
      })[why],
  } satisfies ProblemSentences<FollowProblem>,
});

/** Whether a page could take a rule: it has a block with rules that may move. */
export const canFollow = (site: Site, path: string): boolean => pageTaking(site, path) !== undefined;

function pageTaking(site: Site, path: string): PageBlocks | undefined {
  const file = site.files.get(path);
  const page = file && blocksOf(file);
  const blocks = page?.blocks.filter(
    ({ stays, units }) => stays === undefined && units.some((unit) => unit.groups.length === 0),
  );
  return page && blocks && blocks.length > 0 ? { ...page, blocks } : undefined;
}

/** Each behind what stands before it where it is held; ahead of all where nothing of that is here. */
function insertions(page: PageBlocks, kept: readonly FoundRule[]): readonly Edit[] | undefined {
  const units = page.blocks.flatMap((block) => block.units.filter((unit) => unit.groups.length === 0));
  const lineEnd = lineEndOf(page.text);
  const texts = new Map<number, string>();
  for (const one of kept) {
    const theirs = one.blocks.flatMap((block) => block.units);
    const before = new Set(theirs.slice(0, theirs.indexOf(one.unit)).map(({ family }) => family));
    const last = units.findLast((unit) => unit.closed && before.has(unit.family));
    const next = last ?? units[0]!;
    const own = indentationAt(page.text, next.span.start);
    const text = asWrittenIn(page, own, one);
    if (text === undefined) return undefined;
    const at = last?.span.end ?? next.lead;
    texts.set(at, (texts.get(at) ?? '') + (last ? lineEnd + own + text : text + lineEnd + own));
  }
  return [...texts].map(([at, text]) => ({ span: { start: at, end: at }, text }));
}
