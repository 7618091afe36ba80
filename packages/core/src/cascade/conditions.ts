import type { Condition } from './compiledRule.ts';
import type { Environment } from './environment.ts';
import { evaluateMedia } from './evaluateMedia.ts';
import { evaluateSupports } from './evaluateSupports.ts';

/** Whether all conditions hold; `undefined` when one cannot be told (a container query, an unknown feature). */
export function conditionsHold(conditions: readonly Condition[], environment: Environment): boolean | undefined {
  let sure = true;
  for (const condition of conditions) {
    const holds = conditionHolds(condition, environment);
    if (holds === false) return false;
    if (holds === undefined) sure = false;
  }
  return sure ? true : undefined;
}

function conditionHolds(condition: Condition, environment: Environment): boolean | undefined {
  switch (condition.kind) {
    case 'media':
      return evaluateMedia(condition.text, environment);
    case 'sheet-set':
      return condition.preferred;
    case 'supports':
      return evaluateSupports(condition.text);
    case 'container':
      return undefined; // the size of a container is layout's
    case 'young-list':
      return true;
    case 'other-browsers':
      return false;
    case 'other':
      return false; // @starting-style: where a transition starts, never what an element ends up with; at the load of a page it may start or not, as sheets arrive
  }
}

/** A condition as people read it. */
export function describeCondition(condition: Condition): string {
  switch (condition.kind) {
    case 'media':
      return `@media ${condition.text}`;
    case 'supports':
      return `@supports ${condition.text}`;
    case 'container':
      return `@container ${condition.text}`;
    case 'sheet-set':
      return `the sheet set “${condition.text}”`;
    case 'other':
      return condition.text;
    case 'young-list':
      return `a browser that knows all of ${condition.text}`;
    case 'other-browsers':
      return condition.text === '' ? 'another browser' : `another browser, ${condition.text}`;
  }
}
