import { Type, type Static } from '@sinclair/typebox';

const Place = Type.Object({ path: Type.String(), line: Type.Integer(), column: Type.Integer() });

const Decider = Type.Object({
  property: Type.String(),
  value: Type.String(),
  important: Type.Boolean(),
  source: Type.Union(['linked', 'imported', 'embedded', 'attribute', 'hint'].map((k) => Type.Literal(k))),
  selector: Type.Optional(Type.String()),
  specificity: Type.Array(Type.Integer(), { minItems: 3, maxItems: 3 }),
  place: Type.Optional(Place),
});

const ElementRef = Type.Object({ path: Type.String(), name: Type.String(), line: Type.Integer() });

const Cause = Type.Object({
  pseudoElement: Type.String(),
  property: Type.String(),
  before: Type.Optional(Decider),
  after: Type.Optional(Decider),
  reason: Type.String(),
  elements: Type.Array(ElementRef),
  /** Somebody chose this change of look. */
  intended: Type.Optional(Type.Literal(true)),
});

/** Something that cannot be told, and the elements it is about. */
const Doubt = Type.Object({ sentence: Type.String(), elements: Type.Array(ElementRef) });

export const PageProof = Type.Object({
  path: Type.String(),
  verdict: Type.Union(['same', 'intended', 'unsure', 'differs', 'added', 'removed'].map((k) => Type.Literal(k))),
  elements: Type.Integer(),
  differingElements: Type.Integer(),
  causes: Type.Array(Cause),
  notes: Type.Array(Type.String()),
  doubts: Type.Array(Doubt),
});

/** The comparison of two states of a site: `syndeton proof --json` and `GET …/draft/proof`. */
export const Proof = Type.Object(
  {
    verdict: Type.Union([
      Type.Literal('same'),
      Type.Literal('intended'),
      Type.Literal('unsure'),
      Type.Literal('differs'),
    ]),
    pages: Type.Array(PageProof),
    elements: Type.Integer(),
  },
  { $id: 'Proof' },
);

export type ProofReply = Static<typeof Proof>;
