import { foldedText } from '../sheet/tokens.ts';
import type { Declaration } from '../sheet/sheet.ts';
import { declarationValidity } from '../values/declarationValidity.ts';
import type { Check, CheckedPage, CheckedSheet, CheckedSite, CheckMaker } from './check.ts';
import { says } from './declarations.ts';
import { eachRuleOfPage, eachRuleOfSheet, type Holder } from './eachRule.ts';
import { FindingGroups } from './findingGroup.ts';
import type { FoundFinding } from './finding.ts';
import { code, pagesInWords, verb } from './words.ts';

/** Font lists that end without a generic family, so that a browser without those fonts takes whatever it likes. */
export const fontLists: CheckMaker = { kinds: ['no-generic-font'], make: () => new FontLists() };

class FontLists implements Check {
  private readonly groups = new FindingGroups();

  sheet(sheet: CheckedSheet): void {
    eachRuleOfSheet(sheet, (list, holder) => this.look(list, holder));
  }

  page(page: CheckedPage): void {
    eachRuleOfPage(page, (list, holder) => this.look(list, holder));
  }

  private look(list: readonly Declaration[], holder: Holder): void {
    for (const { property, value, valueSpan } of list) {
      if ((property !== 'font-family' && property !== 'font') || list.some((d) => d.property === 'src')) continue;
      if (!lacksGeneric(property, value)) continue;
      const group = this.groups.about('font lists');
      if (holder.page) group.page(holder.path);
      group.at(holder, holder.tagStart ?? valueSpan.start);
      // the span of a value may take in the comment after it
      if (holder.tagStart === undefined)
        group.mend(holder.path, { span: { start: valueSpan.end, end: valueSpan.end }, text: `, ${genericFor(value)}` });
    }
  }

  merge(page: FontLists): void {
    this.groups.merge(page.groups);
  }

  findings(site: CheckedSite): readonly FoundFinding[] {
    return this.groups.all.map((group) => {
      const sheets = [...new Set(group.places.map((p) => p.path).filter((path) => /\.css$/i.test(path)))];
      const own = [...group.pages];
      says(group, site);
      const who = own.length > 0 ? [pagesInWords(own), ...sheets.map(code)] : sheets.map(code);
      return group.finding(
        'no-generic-font',
        `${who.join(', ')} ${verb(sheets.length + own.length, 'have', 'has')} a font list without a generic end`,
        { mend: 'Add one', look: 'See it' },
      );
    });
  }
}

const generic =
  /^(serif|sans-serif|monospace|cursive|fantasy|system-ui|ui-(serif|sans-serif|monospace|rounded)|math|emoji|fangsong|-webkit-body|-apple-system)$/i;

/** CSS Fonts 4, "Generic font families". A system font or a keyword for all properties is no list. */
export function lacksGeneric(property: string, value: string): boolean {
  if (declarationValidity(property, value) !== 'valid' || /var\(/i.test(value)) return false;
  const families = foldedText(value)
    .replace(/"[^"]*"|'[^']*'/g, 'Quoted')
    .split(',');
  const only = families.length === 1 ? families[0]!.trim() : '';
  if (
    /^(inherit|initial|unset|revert|revert-layer|caption|icon|menu|message-box|small-caption|status-bar)$/i.test(only)
  )
    return false;
  const last = families.at(-1)!.trim();
  const family = property === 'font' && families.length === 1 ? last.split(' ').at(-1)! : last;
  return !generic.test(family);
}

/** By the names in the list; common practice. */
export function genericFor(value: string): string {
  if (/mono|courier|consol|typewriter|terminal/i.test(value)) return 'monospace';
  if (/sans/i.test(value)) return 'sans-serif';
  return /serif|georgia|times|palatino|garamond|baskerville|cambria|roman|bookman|century/i.test(value)
    ? 'serif'
    : 'sans-serif';
}
