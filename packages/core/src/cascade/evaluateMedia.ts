import type { Environment } from './environment.ts';
import { allOf, anyOf, negate, splitOutside, type Answer } from './logic.ts';

/**
 * Whether a media query list holds. `undefined` where a feature is not known here.
 *
 * Media Queries 4, "Media Queries" and "Combining Media Features"; a malformed query is `not all`.
 * Deprecated types (`tv`, `handheld`, …) are known and match nothing.
 */
export function evaluateMedia(text: string, environment: Environment): Answer {
  if (text.trim() === '') return true;
  return anyOf(splitOutside(text, /,/y).map((query) => evaluateQuery(query.trim().toLowerCase(), environment)));
}

function evaluateQuery(query: string, environment: Environment): Answer {
  const found = /^(?:(not|only)\s+)?([a-z-]+)(?:\s+and\s+(.*))?$/s.exec(query);
  if (found && !/^(and|or|not|only|layer)$/.test(found[2]!)) {
    const type = found[2] === 'all' || found[2] === environment.medium;
    const rest = found[3] === undefined ? true : evaluateCondition(found[3], environment, false);
    const both = allOf([type, rest]);
    return found[1] === 'not' ? negate(both) : both;
  }
  return query.startsWith('(') || query.startsWith('not') ? evaluateCondition(query, environment, true) : false;
}

function evaluateCondition(text: string, environment: Environment, orAllowed: boolean): Answer {
  const negated = /^not\s+(\(.*)$/s.exec(text);
  if (negated) return negate(evaluateInParentheses(negated[1]!, environment));
  const ands = splitOutside(text, /\s+and(?=[\s(])/y).map((part) => part.trim());
  if (ands.length > 1) return allOf(ands.map((part) => evaluateInParentheses(part, environment)));
  const ors = splitOutside(text, /\s+or(?=[\s(])/y).map((part) => part.trim());
  if (ors.length > 1) return orAllowed ? anyOf(ors.map((part) => evaluateInParentheses(part, environment))) : false;
  return evaluateInParentheses(text, environment);
}

function evaluateInParentheses(text: string, environment: Environment): Answer {
  const found = /^\((.*)\)$/s.exec(text.trim());
  if (!found) return false;
  const inner = found[1]!.trim();
  if (inner.startsWith('(') || /^not\s*\(/.test(inner)) return evaluateCondition(inner, environment, true);
  return evaluateFeature(inner, environment);
}

function evaluateFeature(text: string, environment: Environment): Answer {
  const plain = /^(?:(min|max)-)?([a-z-]+)\s*:\s*(.+)$/s.exec(text);
  if (plain)
    return compareFeature(
      plain[2]!,
      plain[1] === 'min' ? '>=' : plain[1] === 'max' ? '<=' : '=',
      plain[3]!,
      environment,
    );
  const range = /^(.+?)\s*(<=|>=|<|>|=)\s*(.+?)(?:\s*(<=|>=|<|>)\s*(.+))?$/s.exec(text);
  if (range) {
    const [, left, first, middle, second, right] = range;
    if (second !== undefined)
      return allOf([
        compareFeature(middle!, flip(first!), left!, environment),
        compareFeature(middle!, second, right!, environment),
      ]);
    return /^[a-z]/.test(left!)
      ? compareFeature(left!, first!, middle!, environment)
      : compareFeature(middle!, flip(first!), left!, environment);
  }
  return booleanFeature(text, environment);
}

const flip = (sign: string): string => sign.replace(/[<>]/, (s) => (s === '<' ? '>' : '<'));

function booleanFeature(name: string, environment: Environment): Answer {
  if (name === 'width' || name === 'height' || name === 'color') return true;
  if (name === 'monochrome') return false;
  if (name === 'hover' || name === 'pointer') return environment.medium === 'screen';
  return undefined;
}

function compareFeature(name: string, sign: string, value: string, environment: Environment): Answer {
  if (name === 'width' || name === 'height') {
    const wanted = pixels(value);
    // a length without a unit, or no length at all, makes the feature malformed: it matches nothing
    return wanted !== undefined && compare(environment[name], sign, wanted);
  }
  if (name === 'orientation') return value === (environment.height >= environment.width ? 'portrait' : 'landscape');
  if (name === 'prefers-color-scheme') return value === 'light';
  if (name === 'prefers-reduced-motion') return value === 'no-preference';
  return undefined;
}

function compare(actual: number, sign: string, wanted: number): boolean {
  switch (sign) {
    case '>=':
      return actual >= wanted;
    case '<=':
      return actual <= wanted;
    case '>':
      return actual > wanted;
    case '<':
      return actual < wanted;
    default:
      return actual === wanted;
  }
}

const unitPixels: Readonly<Record<string, number>> = {
  px: 1, em: 16, rem: 16, pt: 96 / 72, pc: 16, in: 96, cm: 96 / 2.54, mm: 9.6 / 2.54,
}; // prettier-ignore

function pixels(value: string): number | undefined {
  const found = /^([+-]?(?:\d+\.?\d*|\.\d+))([a-z]*)$/.exec(value.trim());
  if (!found) return undefined;
  if (found[2] === '') return Number(found[1]) === 0 ? 0 : undefined;
  const unit = unitPixels[found[2]!];
  return unit === undefined ? undefined : Number(found[1]) * unit;
}
