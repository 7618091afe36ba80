import type { Contender } from '../cascade/contenders.ts';
import type { OwnOutcome } from '../cascade/ownOutcome.ts';
import { printSpecificity } from '../selectors/selector.ts';
import type { Kind } from './kindTable.ts';
import type { KeptOutcome, OutcomesIn } from './outcomesIn.ts';
import { winningSentence, type Sentence } from './reasons.ts';

/** A rule, an attribute or a default that decides the value of some of the elements. */
export interface Decider {
  readonly kind: 'linked' | 'imported' | 'embedded' | 'attribute' | 'presentational' | 'browser' | 'initial';
  /** The sheet's path; empty for what stands in pages. */
  readonly path: string;
  /** The rule's selectors as written; the attribute's name for a presentational one. */
  readonly selector: string;
  readonly specificity: string | undefined;
  readonly important: boolean;
  /** The declaration: as written. */
  readonly property: string;
  readonly value: string;
  /** The name of the element the value is inherited from. */
  readonly inheritedFrom: string | undefined;
  readonly sentence: Sentence;
  /** A local declaration that says what the shared one below it says. */
  readonly copies: boolean;
  /** The shared declaration it beats, where it stands in a page. */
  readonly over: { readonly path: string; readonly selector: string; readonly value: string } | undefined;
  readonly pages: readonly string[];
  readonly elements: number;
  /** The first element, by its number in the page. */
  readonly first: { readonly page: string; readonly index: number };
}

/** Elements whose value comes from the same declaration in the same way. */
export interface Deciding {
  readonly outcome: KeptOutcome;
  readonly first: { readonly page: string; readonly index: number };
  readonly longhand: string;
  readonly value: string;
  readonly pages: string[];
  elements: number;
}

type Own<K extends OwnOutcome['kind']> = Extract<OwnOutcome, { kind: K }>;

/** Who decides for these elements; `pseudoElement` is the one asked for, or empty. */
export function deciderOf(deciding: Deciding, outcomes: OutcomesIn, pseudoElement: string): Decider {
  const { own } = deciding.outcome;
  if (own.kind === 'initial') return initialDecider(deciding);
  return own.kind === 'default'
    ? browserDecider(deciding, own)
    : declaredDecider(deciding, own.contender, outcomes, pseudoElement);
}

function common({ outcome, first, value, pages, elements }: Deciding) {
  const inheritedFrom = outcome.up > 0 ? outcome.kind.tag : undefined;
  return { value, inheritedFrom, pages, elements, first, copies: false, over: undefined };
}

const nowhere = { path: '', selector: '', specificity: undefined } as const;

function initialDecider(deciding: Deciding): Decider {
  const sentence: Sentence = {
    lead: 'The initial value counts.',
    rest: 'Nothing says it, and nothing is inherited.',
    kind: 'alone',
  };
  const property = deciding.longhand;
  return { ...common(deciding), ...nowhere, kind: 'initial', important: false, property, sentence };
}

function browserDecider(deciding: Deciding, { selector, declaration }: Own<'default'>): Decider {
  const { property, important } = declaration.declaration;
  const sentence: Sentence = {
    lead: 'The browser’s default counts.',
    rest: 'No source of these pages says it.',
    kind: 'default',
  };
  return { ...common(deciding), ...nowhere, kind: 'browser', selector, important, property, sentence };
}

function declaredDecider(deciding: Deciding, winner: Contender, outcomes: OutcomesIn, pseudoElement: string): Decider {
  const { outcome, longhand } = deciding;
  const from = outcome.up > 0 ? outcome.kind.tag : undefined;
  const below = rivalsOf(winner, outcome.kind, outcomes, longhand, from === undefined ? pseudoElement : '');
  const { declaration, comparable } = winner.compiled;
  const shared = below.find((one) => one.origin === 'rule' && one.source!.kind !== 'embedded');
  const isLocal = winner.origin === 'attribute' || winner.source?.kind === 'embedded';
  const copies = isLocal && below[0] !== undefined && below[0] === shared && shared.compiled.comparable === comparable;
  const hasDefault = (outcome.kind.defaults.get(pseudoElement) ?? []).some((rule) =>
    rule.declarations.some((d) => d.longhands.includes(longhand)),
  );
  const wins = winningSentence(winner, below[0], hasDefault);
  const copying =
    'It says what the shared rule below it says: a copy that decides because it is stronger or comes later.';
  return {
    ...common(deciding),
    kind: kindOf(winner),
    path: winner.source && winner.source.kind !== 'embedded' ? winner.source.path : '',
    selector: winner.rule?.rule.selector ?? winner.hint?.attribute ?? '',
    specificity: winner.rule ? printSpecificity(winner.specificity) : undefined,
    important: declaration.important,
    property: declaration.property,
    copies,
    over:
      isLocal && shared
        ? { path: shared.source!.path, selector: shared.rule!.rule.selector, value: shared.compiled.declaration.value }
        : undefined,
    sentence: copies ? { ...wins, rest: copying } : from === undefined ? wins : inheriting(from),
  };
}

const inheriting = (from: string): Sentence => ({
  lead: `Inherited from \`${from}\`.`,
  rest: 'No rule names the element itself.',
  kind: 'inherited',
});

function kindOf({ origin, source }: Contender): Decider['kind'] {
  return origin === 'hint' ? 'presentational' : origin === 'attribute' ? 'attribute' : source!.kind;
}

/** The declarations it beats, strongest first. */
function rivalsOf(
  winner: Contender,
  kind: Kind,
  outcomes: OutcomesIn,
  longhand: string,
  pseudoElement: string,
): readonly Contender[] {
  const all = outcomes.contendersOf(kind, pseudoElement);
  return all.slice(all.indexOf(winner) + 1).filter((one) => one.compiled.longhands.includes(longhand));
}
