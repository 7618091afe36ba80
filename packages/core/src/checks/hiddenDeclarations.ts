import { wholeLines } from '../source/removal.ts';
import type { Declaration } from '../sheet/sheet.ts';
import { comparableValue } from '../values/comparableValue.ts';
import { declarationValidity } from '../values/declarationValidity.ts';
import { longhandsOf } from '../values/longhands.ts';
import type { Check, CheckedPage, CheckedSheet, CheckedSite, CheckMaker } from './check.ts';
import { says } from './declarations.ts';
import { eachRuleOfPage, eachRuleOfSheet, type Holder } from './eachRule.ts';
import { FindingGroups } from './findingGroup.ts';
import type { FoundFinding } from './finding.ts';
import { code } from './words.ts';

/** Declarations that a later one of the same rule always beats: a property said twice, or a longhand before its shorthand. */
export const hiddenDeclarations: CheckMaker = { kinds: ['hidden-declaration'], make: () => new HiddenDeclarations() };

class HiddenDeclarations implements Check {
  private readonly groups = new FindingGroups();
  private readonly beater = new Map<string, string>();

  sheet(sheet: CheckedSheet): void {
    eachRuleOfSheet(sheet, (list, holder, selector) => this.look(list, holder, selector));
  }

  page(page: CheckedPage): void {
    eachRuleOfPage(page, (list, holder, selector) => this.look(list, holder, selector));
  }

  private look(list: readonly Declaration[], holder: Holder, selector: string | undefined): void {
    for (const [early, late] of hiddenIn(list)) {
      const subject = `${early.property}: ${early.value} in ${selector ?? 'style'}`;
      this.beater.set(subject, `${late.property}: ${late.value}`);
      const group = this.groups.about(subject);
      if (holder.page) group.page(holder.path);
      group.at(holder, holder.tagStart ?? early.span.start);
      if (holder.tagStart === undefined) group.mend(holder.path, { span: withSemicolon(holder.text, early), text: '' });
    }
  }

  merge(page: HiddenDeclarations): void {
    this.groups.merge(page.groups);
    for (const [subject, late] of page.beater) this.beater.set(subject, late);
  }

  findings(site: CheckedSite): readonly FoundFinding[] {
    return this.groups.all.map((group) => {
      const sentence = `${says(group, site)} ${code(group.subject.replace(/ in .*$/s, ''))} and then ${code(this.beater.get(group.subject)!)} in one rule; the first never counts`;
      return group.finding('hidden-declaration', sentence, { mend: 'Take the first out', look: 'See it' });
    });
  }
}

/** Pairs of a declaration and the later one that hides it whatever the browser. */
export function hiddenIn(list: readonly Declaration[]): readonly (readonly [early: Declaration, late: Declaration])[] {
  const out: (readonly [Declaration, Declaration])[] = [];
  // from the last one on: by property, the next declaration that every browser takes
  const next = { any: new Map<string, number>(), important: new Map<string, number>() };
  for (let i = list.length - 1; i >= 0; i--) {
    const early = list[i]!;
    if (longhandsOf(early.property).length === 0 || !isOldAsTheHills(early)) continue;
    const following = early.important ? next.important : next.any;
    const late = [...following].filter(([property]) => covers(property, early.property)).map(([, at]) => at);
    if (late.length > 0) out.push([early, list[Math.min(...late)]!]);
    next.any.set(early.property, i);
    if (early.important) next.important.set(early.property, i);
  }
  return out.reverse();
}

/** A shorthand before one of its longhands is how people write; the other way round the longhand never counts. */
function covers(late: string, early: string): boolean {
  const key = `${late} ${early}`;
  let known = covering.get(key);
  if (known === undefined) {
    const set = longhandsOf(late);
    covering.set(key, (known = longhandsOf(early).every((name) => set.includes(name))));
  }
  return known;
}

const covering = new Map<string, boolean>();

/**
 * Whether every browser takes it, so that an earlier declaration is no fallback: no function but `url()` and `rgb()`, no vendor
 * name, no young unit or keyword. Common practice.
 */
function isOldAsTheHills({ property, value }: Declaration): boolean {
  if (declarationValidity(property, value) !== 'valid' || property.startsWith('-')) return false;
  if (
    /-(webkit|moz|ms|o)-|\b(flex|grid|contents|sticky|fit-content|min-content|max-content|clip|flow-root|start|end|break-word|anywhere|balance)\b/i.test(
      value,
    )
  )
    return false;
  if (/\d(rem|ch|ex|v[wh]|vmin|vmax|[sld]v[hw]|fr|q)\b/i.test(value)) return false;
  const comparable = comparableValue(property, value);
  return !/(?!(url|rgb)\()\b[a-z-]+\(/i.test(comparable) && !/#[0-9a-f]{8}\b|\/|[a-z]a\(/i.test(comparable);
}

/** The declaration with the semicolon that ends it, and its line where nothing else stands there. */
export function withSemicolon(text: string, { span }: Declaration): { start: number; end: number } {
  const after = /^\s*;[ \t]*/.exec(text.slice(span.end, span.end + 200));
  const whole = { start: span.start, end: span.end + (after?.[0].length ?? 0) };
  return after ? wholeLines(text, whole) : whole;
}
