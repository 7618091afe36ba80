import { trimmed } from '../source/space.ts';
import { attributesHeading } from '../operations/gather/attributeRules.ts';
import type { Operation } from '../operations/operation.ts';
import { parseSheet } from '../sheet/parseSheet.ts';
import type { Rule, StyleRule } from '../sheet/sheet.ts';
import { pagesOf, sheetsOf, type Site } from '../source/site.ts';
import { readingOf } from '../survey/pageReading.ts';

/** What a plan costs those who keep the site. */
export interface PlanFigures {
  readonly newSheets: number;
  /** Links to sheets, of all pages together. */
  readonly linksBefore: number;
  readonly linksAfter: number;
  /** Classes that pages get on their `body` or root, and pages that get one. */
  readonly marks: number;
  readonly markedPages: number;
  readonly rules: number;
  /** Classes made for style attributes, and rules for these that took names there were. */
  readonly classesMade: number;
  readonly namesUsed: number;
  /** Selectors of new sheets made stronger by repeating a class or by an ID that no element has. */
  readonly repeatedClasses: number;
  /** Declarations of new sheets that rules with the same selector, but for its marks, say before. */
  readonly declarationsTwice: number;
}

export function planFigures(before: Site, after: Site, operations: readonly Operation[]): PlanFigures {
  const marks = operations.flatMap((one) => (one.kind === 'gather-sheet' ? (one.marks ?? []) : []));
  const created = sheetsOf(after).filter(({ path }) => !before.files.has(path));
  const ofBlocks = new Set(
    operations.flatMap((one) => (one.kind === 'gather-sheet' || one.kind === 'gather-rules' ? [one.sheet] : [])),
  );
  const ofAttributes = new Set(operations.flatMap((one) => (one.kind === 'gather-attributes' ? [one.sheet] : [])));
  const rules = created.flatMap(({ path, text = '' }) => {
    const from = ofAttributes.has(path) && !ofBlocks.has(path) ? 0 : text.indexOf(attributesHeading);
    return styleRules(parseSheet(text).rules, '', from < 0 ? Infinity : from);
  });
  const there = namesOf(before);
  const own = rules.filter(({ fromAttributes }) => fromAttributes);
  const made = own.filter(({ rule }) => classesIn(rule.selector).some((name) => !there.has(name.toLowerCase())));
  return {
    newSheets: created.length,
    linksBefore: linksOf(before),
    linksAfter: linksOf(after),
    marks: marks.length,
    markedPages: new Set(marks.flatMap(({ pages }) => pages)).size,
    rules: rules.length,
    classesMade: made.length,
    namesUsed: own.length - made.length,
    repeatedClasses: rules.filter(({ rule }) => /(\.[\w-]+)\1(?![\w-])|:not\(#_\)/.test(rule.selector)).length,
    declarationsTwice: saidTwice(
      rules,
      marks.map(({ name }) => name),
    ),
  };
}

interface Found {
  readonly rule: StyleRule;
  readonly groups: string;
  readonly fromAttributes: boolean;
}

/** Rules for style attributes stand behind a comment of their own, or are all there is. */
function styleRules(rules: readonly Rule[], groups: string, from: number): readonly Found[] {
  return rules.flatMap((rule): readonly Found[] => {
    if (rule.kind === 'group') return styleRules(rule.rules, `${groups}@${rule.name} ${rule.prelude}`, from);
    return rule.kind === 'style' ? [{ rule, groups, fromAttributes: rule.span.start >= from }] : [];
  });
}

const classesIn = (selector: string): readonly string[] =>
  [...selector.matchAll(/\.([\w-]+)/g)].map((found) => found[1]!);

const linksOf = (site: Site): number =>
  pagesOf(site).reduce(
    (sum, file) => sum + (readingOf(file)?.sources.filter(({ kind }) => kind === 'linked').length ?? 0),
    0,
  );

/** Classes that some element of the site has, in lower case. */
function namesOf(site: Site): ReadonlySet<string> {
  const out = new Set<string>();
  for (const file of pagesOf(site))
    for (const name of readingOf(file)?.names ?? []) if (name.startsWith('.')) out.add(name.slice(1));
  return out;
}

function saidTwice(rules: readonly Found[], marks: readonly string[]): number {
  const said = new Set<string>();
  let twice = 0;
  for (const { rule, groups } of rules) {
    const selector = trimmed(marks.reduce(withoutMark, rule.selector).replace(/[\t\n\f\r ]+/g, ' '));
    for (const { property, value, important } of rule.declarations) {
      const key = `${groups} ${selector} ${property}:${value}${important ? '!' : ''}`;
      if (said.has(key)) twice++;
      said.add(key);
    }
  }
  return twice;
}

/** The selector without what asks for a class of pages. */
const withoutMark = (selector: string, mark: string): string =>
  selector
    .replaceAll(
      new RegExp(
        `:(?:where|is|not)\\([^()]*(?:\\([^()]*\\))?[^()]*\\.${mark}(?![\\w-])[^()]*(?:\\([^()]*\\))?[^()]*\\)`,
        'g',
      ),
      '',
    )
    .replaceAll(new RegExp(`\\.${mark}(?![\\w-])`, 'g'), '')
    .replaceAll(/(^|,)[\t\n\f\r ]*body[\t\n\f\r ]+/g, '$1 ');
