import { tokenTypes as T } from '../sheet/tokens.ts';
import {
  nameAt,
  partOf,
  readCondition,
  splitAtCommas,
  subpart,
  typeAt,
  type ConditionTree,
  type Part,
} from './conditionTree.ts';
import type { Environment } from './environment.ts';
import { allOf, anyOf, negate, type Answer } from './logic.ts';
import { evaluateFeature } from './mediaFeatures.ts';

/**
 * Whether a media query list holds. `undefined` where it hangs on a calculation or on a font.
 *
 * Media Queries 4, "Media Queries" and "Combining Media Features"; a malformed query is `not all`.
 * Deprecated types (`tv`, `handheld`, …) are known and match nothing.
 */
export function evaluateMedia(text: string, environment: Environment): Answer {
  const part = partOf(text);
  if (part?.to === 0) return true;
  // a stray bracket spoils its query alone: read the queries one by one
  const queries = part ? splitAtCommas(part) : text.split(',').map((query) => partOf(query));
  return anyOf(queries.map((query) => (query ? evaluateQuery(query, environment) : false)));
}

function evaluateQuery(query: Part, environment: Environment): Answer {
  const doubt = { found: false };
  const answer = queryAnswer(query, environment, doubt);
  return answer ?? (doubt.found ? undefined : false);
}

function queryAnswer(query: Part, environment: Environment, doubt: { found: boolean }): Answer {
  const first = nameAt(query, query.from);
  const modifier = first === 'not' || first === 'only' ? first : undefined;
  const at = query.from + (modifier ? 1 : 0);
  if (typeAt(query, query.from) !== T.Ident || (modifier && typeAt(query, at) !== T.Ident)) {
    const tree = readCondition(query);
    return tree ? evaluateTree(tree, environment, doubt) : false;
  }
  const type = nameAt(query, at);
  if (/^(and|or|not|only|layer)$/.test(type)) return false;
  const rest = restOf(query, at + 1, environment, doubt);
  if (rest === 'malformed') return false;
  const both = allOf([type === 'all' || type === environment.medium, rest]);
  return modifier === 'not' ? negate(both) : both;
}

/** What follows the type: nothing, or `and` with a condition that has no `or` outside parentheses. */
function restOf(query: Part, at: number, environment: Environment, doubt: { found: boolean }): Answer | 'malformed' {
  if (at >= query.to) return true;
  if (typeAt(query, at) !== T.Ident || nameAt(query, at) !== 'and') return 'malformed';
  const tree = readCondition(subpart(query, at + 1));
  return tree && tree.kind !== 'or' ? evaluateTree(tree, environment, doubt) : 'malformed';
}

function evaluateTree(tree: ConditionTree, environment: Environment, doubt: { found: boolean }): Answer {
  switch (tree.kind) {
    case 'not':
      return negate(evaluateTree(tree.of, environment, doubt));
    case 'and':
      return allOf(tree.of.map((part) => evaluateTree(part, environment, doubt)));
    case 'or':
      return anyOf(tree.of.map((part) => evaluateTree(part, environment, doubt)));
    case 'lost':
      doubt.found = true;
      return undefined;
    case 'leaf': {
      const answer = tree.name === undefined ? evaluateFeature(tree.inside, environment) : 'unknown';
      if (answer === 'unsure') doubt.found = true;
      return typeof answer === 'boolean' ? answer : undefined;
    }
  }
}
