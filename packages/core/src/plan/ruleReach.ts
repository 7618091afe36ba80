import type { ElementNode } from '../page/nodes.ts';
import { parsePage } from '../page/parsePage.ts';
import { matchSelector } from '../selectors/matchSelector.ts';
import { parseSelectorList } from '../selectors/parseSelector.ts';
import type { ComplexSelector } from '../selectors/selector.ts';
import { sheetsOf, type Site } from '../source/site.ts';
import { PageSet } from './pageSet.ts';
import type { PlannedRule, RuleTable } from './ruleTable.ts';

interface Asked {
  readonly rule: PlannedRule;
  readonly selector: ComplexSelector;
}

/** By rule, the pages where it may do something: some element matches in some state, or something says the defined name. */
export function reachOfRules(
  site: Site,
  table: RuleTable,
  asked: readonly PlannedRule[],
): ReadonlyMap<number, PageSet> {
  const reach = new Map(asked.map((rule) => [rule.number, PageSet.empty(table.pages.length)]));
  const buckets = new Buckets(asked.filter((rule) => rule.kind === 'rule' && !rule.opaque));
  const definitions = asked.filter((rule) => rule.kind === 'definition');
  const sheetText = sheetsOf(site).map((file) => (file.text ?? '').toLowerCase()).join('\n'); // prettier-ignore
  table.pages.forEach(({ path }, page) => {
    const text = site.files.get(path)?.text;
    if (text === undefined) return;
    for (const rule of asked) if (rule.opaque) reach.get(rule.number)!.add(page);
    const lower = definitions.length === 0 ? '' : text.toLowerCase();
    for (const rule of definitions)
      if (mayBeSaid(rule, lower) || mayBeSaid(rule, sheetText) || lower.includes('<script'))
        reach.get(rule.number)!.add(page);
    if (buckets.size === 0) return;
    const tree = parsePage(text);
    const context = { quirks: tree.mode === 'quirks', state: 'any' } as const;
    for (const element of tree.elements)
      for (const list of buckets.of(element))
        for (const { rule, selector } of list) {
          const pages = reach.get(rule.number)!;
          if (!pages.has(page) && matchSelector(element, selector, context) > 0) pages.add(page);
        }
  });
  return reach;
}

/** Whether a text says what `@font-face Name`, `@keyframes name` and the like define; others work without being named. */
function mayBeSaid({ label }: PlannedRule, text: string): boolean {
  const found = /^@(?:font-face|keyframes|counter-style|property|font-palette-values)\s+(.+)$/s.exec(label);
  return !found || text.includes(found[1]!.toLowerCase()) || text.includes('\\');
}

/** Selectors by what their last compound asks for. */
class Buckets {
  private readonly lists = new Map<string, Asked[]>();
  readonly size: number;

  constructor(rules: readonly PlannedRule[]) {
    this.size = rules.length;
    for (const rule of rules)
      for (const selector of parseSelectorList(rule.label) ?? []) this.add(bucketOf(selector), { rule, selector });
  }

  private add(key: string, one: Asked): void {
    const list = this.lists.get(key);
    if (list) list.push(one);
    else this.lists.set(key, [one]);
  }

  *of({ tag, id, classes }: ElementNode): Iterable<readonly Asked[]> {
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
