interface OfKind {
  readonly kind: string;
}

/** What a plan consists of, in this order. */
const planKinds = [
  'import-to-link',
  'gather-sheet',
  'gather-rules',
  'gather-blocks',
  'gather-attributes',
  'gather-hints',
];

export interface Step {
  readonly from: number;
  /** Behind its last operation. */
  readonly to: number;
}

/** The operations that stand together around the one that writes a plan's sheet: people take a plan as one step. */
export function planStepOf(operations: readonly OfKind[]): Step | undefined {
  const at = operations.findIndex(({ kind }) => kind === 'gather-sheet');
  if (at < 0) return undefined;
  const rank = (i: number): number => planKinds.indexOf(operations[i]?.kind ?? '');
  let from = at;
  while (rank(from - 1) >= 0 && rank(from - 1) <= rank(from)) from--;
  let to = at + 1;
  while (rank(to) >= rank(to - 1) && rank(to) >= 0) to++;
  return { from, to };
}

/** The operations without their plan. */
export function withoutPlan<One extends OfKind>(operations: readonly One[]): readonly One[] {
  const step = planStepOf(operations);
  return step ? [...operations.slice(0, step.from), ...operations.slice(step.to)] : operations;
}

/** The operations without the last step: a plan as a whole, else one operation. */
export function withoutLastStep<One extends OfKind>(operations: readonly One[]): readonly One[] {
  const step = planStepOf(operations);
  return operations.slice(0, step?.to === operations.length ? step.from : -1);
}
