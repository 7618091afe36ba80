import { trimmed } from '../source/space.ts';
import { describeCondition } from '../cascade/conditions.ts';
import type { Contender } from '../cascade/contenders.ts';
import { decidingCriterion, type Criterion } from '../cascade/decidingCriterion.ts';
import { printSpecificity } from '../selectors/selector.ts';

/** Why one declaration wins or loses; the keys of the short explanations people can open. */
export type ReasonKind = Criterion['kind'] | 'default' | 'inherited' | 'alone' | 'condition' | 'state' | 'peeled';

export interface Reason {
  readonly kind: ReasonKind;
  readonly words: string;
}

/** Where a declaration stands, as people say it. */
export function sourceWords({ origin, source, hint }: Contender): string {
  if (origin === 'attribute') return 'the style attribute';
  if (origin === 'hint') return `the ${hint?.attribute ?? 'presentational'} attribute`;
  return source!.kind === 'embedded' ? 'the embedded block' : source!.path;
}

/** Of two blocks of a page the other one, or the same. */
function sameKindWords(winner: Contender, next: Contender): string {
  const other = sourceWords(next);
  if (winner.source?.kind !== 'embedded' || next.source?.kind !== 'embedded') return other;
  return winner.source.offset === next.source.offset ? 'the same block' : 'another block';
}

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** Why a declaration does not win, beside the one that does. */
export function losingReason(loser: Contender, winner: Contender | undefined): Reason {
  if (!loser.applies) return idleReason(loser);
  if (!winner) return { kind: 'default', words: 'hands over' };
  const criterion = decidingCriterion(winner, loser);
  switch (criterion.kind) {
    case 'importance':
      return { kind: 'importance', words: 'not important' };
    case 'attribute':
      return { kind: 'attribute', words: 'a style attribute beats it' };
    case 'hint':
      return { kind: 'hint', words: 'weaker than any rule' };
    case 'layer':
      return { kind: 'layer', words: 'in a weaker layer' };
    case 'specificity':
      return { kind: 'specificity', words: `${printSpecificity(criterion.loser)} is less` };
    case 'proximity':
      return { kind: 'proximity', words: 'its scope is farther' };
    case 'order':
      return { kind: 'order', words: 'earlier in order' };
  }
}

function idleReason({ conditions, selector }: Contender): Reason {
  const words = conditions.map(describeCondition).join(' and ');
  return words === ''
    ? { kind: 'state', words: trimmed(`only as ${selector ?? ''}`) }
    : { kind: 'condition', words: `only with ${words}` };
}

export interface Sentence {
  /** Who wins: the part to stress. */
  readonly lead: string;
  /** Why, selectors and values between backticks. */
  readonly rest: string;
  readonly kind: ReasonKind;
}

/** One sentence on why a declaration wins over the strongest other one. */
export function winningSentence(winner: Contender, next: Contender | undefined, overDefault: boolean): Sentence {
  const name = sourceWords(winner);
  const lead = `${/^the /.test(name) ? capital(name) : name} wins.`;
  const own = winner.selector ?? '';
  if (!next) {
    const rest = overDefault ? 'Only the browser’s default stands against it.' : 'Nobody else says it.';
    return { lead, rest, kind: overDefault ? 'default' : 'alone' };
  }
  const other = sameKindWords(winner, next);
  const theirs = next.selector === undefined ? other : `\`${next.selector}\` in ${other}`;
  const criterion = decidingCriterion(winner, next);
  const said = (rest: string): Sentence => ({ lead, rest, kind: criterion.kind });
  switch (criterion.kind) {
    case 'importance':
      return said(`It says \`!important\`; ${theirs} does not.`);
    case 'attribute':
      return said(`A style attribute beats every selector of the same importance, ${theirs} too.`);
    case 'hint':
      return said(`Any rule beats a presentational attribute.`);
    case 'layer':
      return said(`Its layer counts more than that of ${theirs}.`);
    case 'specificity':
      return said(
        `Its \`${own}\` is ${printSpecificity(criterion.winner)}, more than ${theirs}, ${printSpecificity(criterion.loser)}.`,
      );
    case 'proximity':
      return said(`Its \`@scope\` begins nearer to the element than that of ${theirs}.`);
    case 'order': {
      const strength = winner.rule ? `, ${printSpecificity(winner.specificity)}` : '';
      return said(
        own === next.selector && winner.rule
          ? `Both say it with \`${own}\`${strength}; it comes later.`
          : `As strong as ${theirs}${strength}, and it comes later.`,
      );
    }
  }
}
