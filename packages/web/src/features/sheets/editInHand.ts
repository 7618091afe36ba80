import type { RuleScoreReply } from '@syndeton/contract';
import type { OutlinedRule } from '@syndeton/core';
import type { RuleHere } from './editor/SheetEditor.tsx';

/** Properties of the rule at the cursor that say something else than in the draft. */
export function changedProperties(
  here: RuleHere | undefined,
  before: readonly OutlinedRule[] | undefined,
): readonly string[] {
  if (!here || here.start === undefined) return [];
  const old = before?.find(({ start, selector }) => start === here.before && selector === here.rule.selector);
  if (!old) return [];
  const said = (rule: OutlinedRule): Map<string, string> =>
    new Map(rule.declarations.map(({ property, value, important }) => [property, `${value}${important ? '!' : ''}`]));
  const [then, now] = [said(old), said(here.rule)];
  return [...new Set([...then.keys(), ...now.keys()])].filter((property) => then.get(property) !== now.get(property));
}

/** Elements on which what changes has won so far: they change surely. Undefined where the draft says none of it. */
export function firstAnswer(
  score: RuleScoreReply | undefined,
  changed: readonly string[],
): { readonly properties: readonly string[]; readonly elements: number; readonly pages: number } | undefined {
  const said = score?.declarations.filter(({ property }) => changed.includes(property)) ?? [];
  if (said.length === 0) return undefined;
  const pages = new Set(said.flatMap((one) => one.pages.flatMap(({ path, wins }) => (wins > 0 ? [path] : []))));
  return { properties: changed, elements: Math.max(...said.map(({ wins }) => wins)), pages: pages.size };
}
