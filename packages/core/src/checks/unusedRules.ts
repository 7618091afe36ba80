import { parseSelectorList } from '../selectors/parseSelector.ts';
import type { Rule } from '../sheet/sheet.ts';
import type { Check, CheckedPage, CheckedSheet, CheckedSite, CheckMaker } from './check.ts';
import { FindingGroup } from './findingGroup.ts';
import type { FoundFinding } from './finding.ts';
import { code, count, namesInWords, verb } from './words.ts';
import { matchesSomewhere } from './matchesSomewhere.ts';

interface SheetRule {
  readonly selector: string;
  readonly start: number;
  used: boolean;
}

/** Rules of shared sheets that no element of any page has, in any state. That a page does not use a rule is fine. */
export const unusedRules: CheckMaker = { kinds: ['unused-rule'], make: () => new UnusedRules() };

class UnusedRules implements Check {
  private readonly rules = new Map<string, SheetRule[]>();
  private readonly sheets: CheckedSheet[] = [];

  sheet(sheet: CheckedSheet): void {
    this.sheets.push(sheet);
    const own: SheetRule[] = [];
    const walk = (rules: readonly Rule[]): void => {
      for (const rule of rules) {
        if (rule.kind === 'style' && parseSelectorList(rule.selector) !== undefined)
          own.push({ selector: rule.selector, start: rule.span.start, used: false });
        else if (rule.kind === 'group') walk(rule.rules);
      }
    };
    walk(sheet.sheet.rules);
    this.rules.set(sheet.path, own);
  }

  page(page: CheckedPage): void {
    // rules that wait for a state, a layer or a scope count as used as soon as they may match
    const reached = new Set(page.cascade.rules.rules.map((r) => r.source.path));
    for (const path of reached) {
      const waiting = this.rules.get(path)?.filter((rule) => !rule.used) ?? [];
      for (const rule of waiting) rule.used = matchesSomewhere(page, rule.selector);
    }
  }

  findings({ survey }: CheckedSite): readonly FoundFinding[] {
    return this.sheets.flatMap((sheet) => {
      const pages = survey.sheets.find((s) => s.path === sheet.path)?.pages ?? [];
      const unused = this.rules.get(sheet.path)!.filter((rule) => !rule.used);
      if (unused.length === 0 || pages.length === 0) return [];
      const group = new FindingGroup(sheet.path).at(sheet, unused[0]!.start);
      for (const page of pages) group.page(page);
      const sentence = `${count(unused.length, 'rule')} of ${code(sheet.path)} ${verb(unused.length, 'have', 'has')} no element on any page: ${namesInWords(unused.map((r) => r.selector))}`;
      return [group.finding('unused-rule', sentence, { look: 'Open the sheet' })];
    });
  }
}
