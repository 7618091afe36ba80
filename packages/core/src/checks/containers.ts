import type { ElementNode } from '../page/nodes.ts';
import { parseFile } from '../page/parsePage.ts';
import type { Edit } from '../source/span.ts';
import { insertWrap } from '../survey/insertWrap.ts';
import type { Check, CheckContext, CheckedPage, CheckedSheet, CheckedSite, CheckMaker } from './check.ts';
import { FindingGroup } from './findingGroup.ts';
import type { FoundFinding } from './finding.ts';
import type { SomeNames } from '../survey/nameSet.ts';
import { eachSelector, marksOf, namesIn, type MarkedName } from '../survey/selectorNames.ts';
import { code, count, hasBody, pagesInWords, verb } from './words.ts';

/** A page that links a sheet but lacks the container the sheet's rules ask for, which the other pages have. */
export const containers: CheckMaker = { kinds: ['container-missing'], make: (context) => new Containers(context) };

class Containers implements Check {
  private readonly context: CheckContext;

  /** By sheet: containers with the number of rules that hang under them. */
  private readonly asked = new Map<string, Map<MarkedName, number>>();
  private readonly pages: {
    readonly page: string;
    readonly names: SomeNames;
    readonly wraps: ReadonlySet<MarkedName>;
    readonly group: FindingGroup;
    /** The edits that would put such an element round the content. */
    readonly wrap: (name: MarkedName) => readonly Edit[];
  }[] = [];

  constructor(context: CheckContext) {
    this.context = context;
  }

  sheet({ path, sheet }: CheckedSheet): void {
    const asked = new Map<MarkedName, number>();
    eachSelector(sheet.rules, (selector) => {
      for (const name of new Set(namesIn(selector, 0, selector.compounds.length - 1)))
        asked.set(name, (asked.get(name) ?? 0) + 1);
    });
    this.asked.set(path, asked);
  }

  page(page: CheckedPage): void {
    if (!hasBody(page)) return;
    const body = page.tree.elements.find((e) => e.tag === 'body');
    const group = new FindingGroup('').at(page, body?.start ?? 0);
    const { names } = page.marks;
    const wraps = wrappingMarks(page.tree.elements);
    const written = insertWrap(page, '#').length > 0;
    const { text, file } = page;
    // the tree is read again when it is wanted: all pages' trees would not fit
    const wrap = (name: MarkedName): readonly Edit[] =>
      written ? insertWrap({ tree: parseFile(file), text }, name) : [];
    this.pages.push({ page: page.path, names, wraps, group, wrap });
  }

  merge(page: Containers): void {
    this.pages.push(...page.pages);
  }

  findings({ survey }: CheckedSite): readonly FoundFinding[] {
    return survey.sheets.flatMap(({ path, pages }) => {
      // it holds what each of its pages asked for, and no page asked for all
      if (this.context.site.leftOut?.has(path)) return [];
      const linking = this.pages.filter((p) => pages.includes(p.page));
      return [...(this.asked.get(path) ?? [])].flatMap(([name, rules]) => {
        const having = linking.filter((p) => p.names.has(name));
        const lacking = linking.filter((p) => !p.names.has(name));
        const wrapping = having.filter((p) => p.wraps.has(name)).length * 4 >= having.length * 3;
        if (!wrapping || rules < 2 || lacking.length === 0 || having.length < 2 || lacking.length * 4 > having.length)
          return [];
        const group = new FindingGroup(`${name} of ${path}`);
        for (const { page, group: at, wrap } of lacking) {
          group.page(page);
          group.places.push(...at.places);
          const edits = /^[#.][A-Za-z][\w-]*$/.test(name) ? wrap(name) : [];
          if (edits.length > 0) group.mend(page, ...edits);
        }
        const sentence = `${pagesInWords(group.pages)} ${verb(lacking.length, 'link', 'links')} ${code(path)} but ${verb(lacking.length, 'have', 'has')} no ${code(name)}, which ${count(rules, 'rule')} of it ${verb(rules, 'need', 'needs')}; ${count(having.length, 'other page')} ${verb(having.length, 'have', 'has')} it`;
        return [
          group.finding('container-missing', sentence, { mend: 'Put it round the content', look: 'See the page' }),
        ];
      });
    });
  }
}

/** Marks of elements that hold at least half of the body's elements: what wraps the content. */
function wrappingMarks(elements: readonly ElementNode[]): ReadonlySet<MarkedName> {
  const sizes = new Uint32Array(elements.length).fill(1);
  for (let i = elements.length - 1; i >= 0; i--) {
    const { parent } = elements[i]!;
    if (parent?.type === 'element') sizes[parent.index]! += sizes[i]!;
  }
  const body = elements.find((e) => e.tag === 'body');
  const whole = body ? sizes[body.index]! - 1 : elements.length;
  const out = new Set<MarkedName>();
  for (const element of elements)
    if (element !== body && sizes[element.index]! * 2 >= whole && element.index > (body?.index ?? 0))
      for (const mark of marksOf(element)) out.add(mark);
  return out;
}
