import type { Said } from '../rules/ruleEdits.ts';

/** An address counts from where it stands, and the rule stands elsewhere. */
export const holdsAddress = ({ value }: Said): boolean => /url\(|src\(|image-set\(/i.test(value);

/** What has to be said so that a difference is none any more; undefined where it cannot be said elsewhere, or somebody chose it. */
export function sayingBefore({
  property,
  before,
  intended,
}: {
  readonly property: string;
  readonly before?: Said | undefined;
  readonly intended?: boolean;
}): Said | undefined {
  if (intended) return undefined;
  if (!before) return property.startsWith('--') ? undefined : { property, value: 'revert' };
  const said = { property: before.property, value: before.value, ...(before.important ? { important: true } : {}) };
  return holdsAddress(said) ? undefined : said;
}
