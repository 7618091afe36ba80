import { Type } from '@sinclair/typebox';
import { styleAttributeOf } from '../../cascade/matchElement.ts';
import { stackSource, type PageCascade } from '../../cascade/pageCascade.ts';
import { attributeRank, decidersAmong } from '../../cascade/stack.ts';
import { baseAt } from '../../page/styleSources.ts';
import type { StyleRule } from '../../sheet/sheet.ts';
import { fail, succeed } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';
import type { Edit } from '../../source/span.ts';
import { linkedSheets } from '../../survey/linkedSheets.ts';
import { closed, fields, operationType } from '../operationType.ts';
import { eachCascade } from './eachCascade.ts';
import { madeOn } from './madeOn.ts';
import { dropFromRule } from './ruleEdits.ts';
import { editableSheet, ruleProblems, type EditableSheet, type RuleProblem } from './ruleRef.ts';
import { removals, rulesOf } from './sheetRules.ts';

/**
 * Takes out of a sheet the declarations that reach elements and never win there, on no page, at no width, in no medium and state.
 * Rules without elements stay (`drop-unused`), and so do those whose elements scripts may make.
 */
export interface DropBeaten {
  readonly kind: 'drop-beaten';
  readonly sheet: string;
}

export type DropBeatenProblem = RuleProblem | { readonly kind: 'all-win'; readonly sheet: string };

/** By where a declaration of the sheet starts: whether it can win for some element of some page. */
class Winning {
  /** Those of rules that reach an element. */
  readonly reaching = new Set<number>();
  readonly able = new Set<number>();
  private readonly seen = new Set<string>();
  private readonly sheet: string;

  constructor(sheet: string) {
    this.sheet = sheet;
  }

  look(cascade: PageCascade): void {
    // places in the index hold for pages with equal rules
    this.seen.clear();
    for (const element of cascade.tree.elements) {
      const matched = cascade.matchedAlike(element);
      if (!matched.some(({ indexed }) => indexed.rule.source.path === this.sheet)) continue;
      const attribute = styleAttributeOf(element);
      const key = `${matched.map(({ indexed, match }) => `${indexed.position}:${match}`).join()} ${attribute ?? ''}`;
      if (this.seen.has(key)) continue;
      this.seen.add(key);
      const sources = matched.map(({ indexed, match }) => stackSource(indexed, match));
      if (attribute !== undefined) {
        const block = cascade.session.sheets.styleAttribute(attribute, baseAt(cascade.rules.sources, element));
        sources.push({ block, pseudoElement: '', layerRank: attributeRank, condition: '', mark: '' });
      }
      const deciders = decidersAmong(sources);
      matched.forEach(({ indexed: { rule } }, i) => {
        if (rule.source.path !== this.sheet || rule.source.kind === 'embedded') return;
        for (const compiled of rule.compiled.block.declarations) {
          const { start } = compiled.declaration.span;
          this.reaching.add(start);
          if (deciders.get(i)?.has(compiled)) this.able.add(start);
        }
      });
    }
  }
}

/** Undefined where no page takes the sheet. */
function winningIn(site: Site, sheet: string): Winning | undefined {
  const pages = linkedSheets(site).find(({ path }) => path === sheet)?.pages ?? [];
  if (pages.length === 0) return undefined;
  const winning = new Winning(sheet);
  eachCascade(site, pages, (cascade) => winning.look(cascade));
  return winning;
}

/** The edits, and how many declarations they take out. */
function beatenEdits(
  site: Site,
  path: string,
  { text, sheet }: EditableSheet,
): { readonly edits: readonly Edit[]; readonly count: number } {
  const winning = winningIn(site, path);
  if (!winning) return { edits: [], count: 0 };
  const made = madeOn(site, linkedSheets(site).find((one) => one.path === path)?.pages ?? []);
  let count = 0;
  const whole: StyleRule[] = [];
  const parts: Edit[] = [];
  for (const { rule } of rulesOf(sheet)) {
    if (made(rule.selector)) continue;
    const beaten = rule.declarations.filter(
      ({ span }) => winning.reaching.has(span.start) && !winning.able.has(span.start),
    );
    count += beaten.length;
    if (beaten.length > 0 && beaten.length === rule.declarations.length && rule.nested.length === 0 && rule.closed)
      whole.push(rule);
    else parts.push(...beaten.map((one) => dropFromRule(text, one)));
  }
  return { edits: [...parts, ...removals(text, sheet, whole)], count };
}

export const dropBeaten = operationType<DropBeaten, DropBeatenProblem>()({
  kind: 'drop-beaten',
  schema: Type.Object({ kind: Type.Literal('drop-beaten'), sheet: fields.sheet }, closed),
  plan(site, { sheet: path }) {
    const opened = editableSheet(site, path);
    if (!opened.ok) return opened;
    const { edits, count } = beatenEdits(site, path, opened.value);
    if (edits.length === 0) return fail({ kind: 'all-win', sheet: path });
    const changes = { created: [], edited: [{ path, hash: opened.value.file.hash, edits }], deleted: [] };
    return succeed({
      changes,
      sentence: `Drop ${count === 1 ? 'a declaration' : `${count} declarations`} of ${path} that never ${count === 1 ? 'wins' : 'win'}`,
    });
  },
  problems: {
    ...ruleProblems,
    'all-win': ({ sheet }) => `Everything ${sheet} says wins on some element, or reaches none.`,
  },
});
