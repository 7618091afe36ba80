import { parseSheet } from '../sheet/parseSheet.ts';
import { mediaText } from '../cascade/mediaText.ts';
import type { Rule } from '../sheet/sheet.ts';
import type { SiteFile } from '../source/site.ts';
import { familyKey, type Group } from './blockUnits.ts';
import { selectorText } from './selectorText.ts';
import { versionKey } from './versionKey.ts';
import { siteBase } from '../values/urls.ts';

/** What a sheet already says: `family newline version` of each of its style rules. */
export function unitsOfSheet(file: SiteFile): ReadonlySet<string> {
  const text = file.text ?? '';
  const base = siteBase(file.path);
  const out = new Set<string>();
  const walk = (rules: readonly Rule[], groups: readonly Group[]): void => {
    for (const rule of rules) {
      if (rule.kind === 'group')
        walk(rule.rules, [
          ...groups,
          { name: rule.name, prelude: rule.name === 'media' ? mediaText(rule.prelude) : rule.prelude },
        ]);
      if (rule.kind !== 'style') continue;
      out.add(`${familyKey(groups, selectorText(rule.selector))}\n${versionKey(rule, text, base)}`);
    }
  };
  walk(parseSheet(text).rules, []);
  return out;
}
