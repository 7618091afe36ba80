import type { ElementNode } from '../page/nodes.ts';
import { parseFile } from '../page/parsePage.ts';
import { matchSelector } from '../selectors/matchSelector.ts';
import { selectorsOfAnyBrowser } from '../selectors/parseSelector.ts';
import type { ComplexSelector } from '../selectors/selector.ts';
import { sheetsOf, type Site, type SiteFile } from '../source/site.ts';
import { PageSet } from './pageSet.ts';
import { neededNames } from '../survey/selectorNames.ts';
import type { PlannedRule, RuleTable } from './ruleTable.ts';

interface Asked {
  readonly rule: PlannedRule;
  readonly selector: ComplexSelector;
}

/**
 * By rule, the pages where it may do something though they do not hold it: some element matches in some state, or something says
 * the defined name. A page is read again only when the names of its elements do not tell.
 */
export function reachOfRules(
  site: Site,
  table: RuleTable,
  asked: readonly PlannedRule[],
): ReadonlyMap<number, PageSet> {
  const reach = new Map(asked.map((rule) => [rule.number, PageSet.empty(table.pages.length)]));
  const rules = asked.filter((rule) => rule.kind === 'rule' && !rule.opaque);
  const selectors = rules.flatMap((rule) =>
    (selectorsOfAnyBrowser(rule.label) ?? []).map((selector) => ({ rule, selector, needs: neededNames(selector) })),
  );
  const definitions = asked.filter((rule) => rule.kind === 'definition');
  const sheetText = sheetsOf(site)
    .map((file) => (file.text ?? '').toLowerCase())
    .join('\n');
  table.pages.forEach(({ path, names, made }, page) => {
    const file = site.files.get(path);
    const text = file?.text;
    if (file === undefined || text === undefined) return;
    for (const rule of asked) if (rule.opaque) reach.get(rule.number)!.add(page);
    const lower = definitions.length === 0 ? '' : text.toLowerCase();
    for (const rule of definitions)
      if (mayBeSaid(rule, lower) || mayBeSaid(rule, sheetText) || lower.includes('<script'))
        reach.get(rule.number)!.add(page);
    const open: Asked[] = [];
    const makes = made();
    for (const { rule, selector, needs } of selectors) {
      if (rule.holders.has(page)) continue;
      // what a script may make
      if (makes && needs.every((name) => makes.has(name.replace(/^[.#]/, '')))) reach.get(rule.number)!.add(page);
      else if (!needs.every((name) => names.has(name))) continue;
      else if (isOneName(selector)) reach.get(rule.number)!.add(page);
      else open.push({ rule, selector });
    }
    const matched = matchedOn(
      file,
      open.map(({ selector }) => selector),
    );
    for (const { rule, selector } of open) if (matched.get(selector.text)) reach.get(rule.number)!.add(page);
  });
  return reach;
}

/** By page and selector, whether some element matches in some state: plans are made again and again. */
const known = new WeakMap<SiteFile, Map<string, boolean>>();

function matchedOn(file: SiteFile, selectors: readonly ComplexSelector[]): ReadonlyMap<string, boolean> {
  let answers = known.get(file);
  if (!answers) known.set(file, (answers = new Map<string, boolean>()));
  const open = selectors.filter(({ text }) => !answers.has(text));
  if (open.length === 0) return answers;
  for (const { text } of open) answers.set(text, false);
  const buckets = new Buckets(open);
  const tree = parseFile(file);
  const context = { quirks: tree.mode === 'quirks', state: 'any' } as const;
  for (const element of tree.elements)
    for (const list of buckets.of(element))
      for (const selector of list)
        if (!answers.get(selector.text) && matchSelector(element, selector, context) > 0)
          answers.set(selector.text, true);
  return answers;
}

/** A single type, class or ID: whether it matches, the names tell (but for its case, which then counts as a match). */
const isOneName = ({ compounds }: ComplexSelector): boolean =>
  compounds.length === 1 &&
  compounds[0]!.simples.length === 1 &&
  /^(id|class|type)$/.test(compounds[0]!.simples[0]!.kind);

/** Whether a text says what `@font-face Name`, `@keyframes name` and the like define; others work without being named. */
function mayBeSaid({ label }: PlannedRule, text: string): boolean {
  const found = /^@(?:font-face|keyframes|counter-style|property|font-palette-values)[\t\n\f\r ]+(.+)$/s.exec(label);
  return !found || text.includes(found[1]!.toLowerCase()) || text.includes('\\');
}

/** Selectors by what their last compound asks for. */
class Buckets {
  private readonly lists = new Map<string, ComplexSelector[]>();

  constructor(open: readonly ComplexSelector[]) {
    for (const one of open) this.add(bucketOf(one), one);
  }

  private add(key: string, one: ComplexSelector): void {
    const list = this.lists.get(key);
    if (list) list.push(one);
    else this.lists.set(key, [one]);
  }

  *of({ tag, id, classes }: ElementNode): Iterable<readonly ComplexSelector[]> {
    const keys = ['*', tag.toLowerCase(), ...classes.map((name) => `.${name.toLowerCase()}`)];
    if (id !== undefined) keys.push(`#${id.toLowerCase()}`);
    for (const key of keys) {
      const list = this.lists.get(key);
      if (list) yield list;
    }
  }
}

function bucketOf({ compounds }: ComplexSelector): string {
  let key = '*';
  for (const simple of compounds.at(-1)!.simples) {
    if (simple.kind === 'id') return `#${simple.name.toLowerCase()}`;
    if (simple.kind === 'class') key = `.${simple.name.toLowerCase()}`;
    else if (simple.kind === 'type' && key === '*') key = simple.lower;
  }
  return key;
}
