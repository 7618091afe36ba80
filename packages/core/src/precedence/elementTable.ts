import { trimmed } from '../source/space.ts';
import { placeOfContender } from '../cascade/contenderPlace.ts';
import { allContenders, type Contender, type View } from '../cascade/contenders.ts';
import { CascadeSession, type PageCascade } from '../cascade/pageCascade.ts';
import { ownOutcome, type BrowserRule } from '../cascade/ownOutcome.ts';
import { isFlowFree, PageOutcomes, type Outcome } from '../cascade/pageOutcomes.ts';
import type { ElementNode } from '../page/nodes.ts';
import { elementAt, elementName, elementPath, parentElement, textContent } from '../page/parsePage.ts';
import type { Environment } from '../cascade/environment.ts';
import type { ForcedStates } from '../selectors/match.ts';
import { printSpecificity } from '../selectors/selector.ts';
import { isInherited, longhandsForAll } from '../values/longhands.ts';
import { slotOf } from '../values/logicalSlot.ts';
import type { Site } from '../source/site.ts';
import { LineIndex } from '../source/span.ts';
import { browserEntry } from './browserEntry.ts';
import { rowsFor, type SlotGroup } from './rowGroups.ts';
import { losingReason, winningSentence, type Sentence } from './reasons.ts';
import type { ElementTable, TableEntry, TableRow } from './tableRow.ts';
import { readSources, sourceIdOf } from './tableSources.ts';

export interface ElementQuery {
  readonly page: string;
  /** As `elementPath` writes it. */
  readonly element: string;
  readonly pseudoElement?: string;
  readonly environment: Environment;
  /** States held on: `hover`, `focus`, `active`, `visited`, … */
  readonly forced?: readonly string[];
  /** Ids of sources, and of single declarations, switched off. */
  readonly peeled?: readonly string[];
}

/**
 * What decides each property of one element: the declarations of every source, who wins, and why. Properties nobody declares
 * for it or an ancestor are left out. Undefined when there is no such page or element.
 */
export function elementTable(site: Site, query: ElementQuery): ElementTable | undefined {
  const file = site.files.get(query.page);
  if (file?.kind !== 'page' || file.text === undefined) return undefined;
  const page = new CascadeSession().open(site, file);
  const element = elementAt(page.tree, query.element);
  return element && new TableReader(site, page, element, query).read();
}

const mostChildren = 24;

class TableReader {
  private readonly peeled: ReadonlySet<string>;
  private readonly view: View;
  private readonly outcomes: PageOutcomes;
  private readonly pseudoElement: string;
  private readonly lines = new Map<string, LineIndex>();
  private readonly site: Site;
  private readonly page: PageCascade;
  private readonly element: ElementNode;

  constructor(site: Site, page: PageCascade, element: ElementNode, query: ElementQuery) {
    this.site = site;
    this.page = page;
    this.element = element;
    this.peeled = new Set(query.peeled);
    const forced = query.forced?.length ? forcedStates(element, query.forced) : undefined;
    this.view = { environment: query.environment, forced, without: (one, _page, on) => this.isPeeled(one, on) };
    this.outcomes = new PageOutcomes(page, this.view);
    this.pseudoElement = query.pseudoElement ?? '';
  }

  read(): ElementTable {
    const { element, page } = this;
    const all = allContenders(page, element, this.view, this.pseudoElement);
    const defaults = this.outcomes.defaultsOf(element, this.pseudoElement);
    const rows = rowsFor(all, defaults, this.outcomes.flowOf(element)).map((group) => this.row(group, all, defaults));
    const said = new Set(rows.flatMap((row) => row.longhands));
    const inside = element.children.filter((one): one is ElementNode => one.type === 'element');
    const ancestors: ElementNode[] = [];
    for (let at = parentElement(element); at; at = parentElement(at)) ancestors.push(at);
    const pseudoElements = [...new Set(page.matched(element).map((m) => m.indexed.pseudoElement))].filter(
      (p) => p !== '',
    );
    return {
      page: page.path,
      element: elementPath(element),
      name: elementName(element),
      text: trimmed(textContent(element).replace(/[\t\n\f\r ]+/g, ' ')).slice(0, 80),
      line: this.linesOf(page.path).placeOf(Math.max(element.start, 0)).line,
      ancestors: ancestors.map((one) => ({ path: elementPath(one), name: elementName(one) })).reverse(),
      children: inside.slice(0, mostChildren).map((one) => ({ path: elementPath(one), name: elementName(one) })),
      pseudoElements,
      sources: readSources(this.site, page, all, this.peeled, element),
      rows: [...rows, ...this.inheritedRows(ancestors, said)],
    };
  }

  private isPeeled(one: Contender, on: ElementNode): boolean {
    const at = placeOfContender(one, this.page, on);
    if (this.peeled.has(`${at.path}@${at.offset}`)) return true;
    // an attribute is one source of its element alone
    if (one.origin !== 'rule' && on !== this.element) return false;
    return this.peeled.has(sourceIdOf(one));
  }

  private row(
    { property, slots, members }: SlotGroup,
    all: readonly Contender[],
    defaults: readonly BrowserRule[],
  ): TableRow {
    const slot = slots[0]!;
    const flow = isFlowFree(slot) ? undefined : this.outcomes.flowOf(this.element);
    const inPlay = members.filter((one) => one.applies && !this.isPeeled(one, this.element));
    const outcome = ownOutcome({ tag: this.element.tag, contenders: inPlay, defaults, flow }, slot);
    const winner = inPlay[0];
    const entries = members.map((one) => this.entry(one, property, winner, inPlay));
    const byBrowser = browserEntry(
      defaults,
      slots,
      property,
      outcome?.kind === 'default',
      winner !== undefined,
      (name) => (flow ? slotOf(name, flow) : name),
    );
    const said = byBrowser ? [...entries, byBrowser] : entries;
    const common = { property, longhands: slots, entries: said };
    if (outcome?.kind === 'declared') {
      const next = inPlay.find((one) => one !== outcome.contender);
      const sentence = this.sentence(outcome.contender, next, byBrowser !== undefined, all);
      return { ...common, sentence, inheritedFrom: undefined, value: outcome.contender.compiled.declaration.value };
    }
    if (outcome?.kind === 'default') {
      const lead = 'The browser’s default counts.';
      const rest = winner
        ? `\`${winner.compiled.declaration.value}\` in ${winner.source?.path ?? 'the page'} hands over to it.`
        : members.length > 0
          ? 'What the author says is peeled or does not apply here.'
          : 'Nobody says anything else.';
      return {
        ...common,
        sentence: { lead, rest, kind: 'default' },
        inheritedFrom: undefined,
        value: outcome.declaration.declaration.value,
      };
    }
    if (outcome?.kind === 'initial') {
      const rest = winner ? `\`${winner.compiled.declaration.value}\` asks for it.` : 'Nobody in play says it.';
      return {
        ...common,
        sentence: { lead: `The initial value ${outcome.value} counts.`, rest, kind: 'alone' },
        inheritedFrom: undefined,
        value: outcome.value,
      };
    }
    const from = this.outcomes.outcomeOf(this.element, slot, this.pseudoElement);
    return { ...common, ...this.inherited(from) };
  }

  private sentence(
    winner: Contender,
    next: Contender | undefined,
    overDefault: boolean,
    all: readonly Contender[],
  ): Sentence {
    const sentence = winningSentence(winner, next, overDefault);
    const stronger = all.find(
      (one) =>
        one.applies &&
        all.indexOf(one) < all.indexOf(winner) &&
        one.compiled.longhands.some((name) => winner.compiled.longhands.includes(name)) &&
        this.isPeeled(one, this.element),
    );
    if (!stronger) return sentence;
    const without = `With what is peeled in place, \`${stronger.compiled.declaration.value}\` would win here.`;
    return { ...sentence, lead: sentence.lead.replace(/ wins\.$/, ' wins next.'), rest: without, kind: 'peeled' };
  }

  private inherited(outcome: Outcome): Pick<TableRow, 'sentence' | 'inheritedFrom' | 'value'> {
    if (outcome.kind !== 'inherited') {
      const value = outcome.kind === 'initial' ? outcome.value : '';
      return {
        sentence: { lead: `The initial value ${value} counts.`, rest: 'No ancestor says anything.', kind: 'inherited' },
        inheritedFrom: undefined,
        value,
      };
    }
    const { from } = outcome;
    const inner = outcome.outcome;
    const name = elementName(from);
    const inheritedFrom = { path: elementPath(from), name };
    const value =
      inner.kind === 'declared'
        ? inner.contender.compiled.declaration.value
        : inner.kind === 'default'
          ? inner.declaration.declaration.value
          : '';
    const who =
      inner.kind === 'declared'
        ? inner.contender.selector === undefined
          ? 'its own attribute'
          : `\`${inner.contender.selector}\` in ${inner.contender.source?.kind === 'embedded' ? 'the embedded block' : (inner.contender.source?.path ?? '')}`
        : 'the browser’s default';
    return {
      sentence: {
        lead: `Inherited from \`${name}\`.`,
        rest: `There ${who} says \`${value}\`; nothing says it for this element.`,
        kind: 'inherited',
      },
      inheritedFrom,
      value,
    };
  }

  /** Properties an ancestor declares and the element only inherits; one row where one declaration brings several. */
  private inheritedRows(ancestors: readonly ElementNode[], said: ReadonlySet<string>): readonly TableRow[] {
    const names = new Set<string>();
    for (const ancestor of ancestors)
      for (const one of this.outcomes.contendersOf(ancestor))
        for (const name of one.compiled.declaration.property === 'all' ? longhandsForAll : one.compiled.longhands)
          if (isInherited(name) && !said.has(name) && name !== '-webkit-locale') names.add(name);
    const groups = new Map<string, { outcome: Outcome & { kind: 'inherited' }; names: string[] }>();
    for (const name of names) {
      const outcome = this.outcomes.outcomeOf(this.element, name, this.pseudoElement);
      if (outcome.kind !== 'inherited' || outcome.outcome.kind !== 'declared') continue;
      const at = placeOfContender(outcome.outcome.contender, this.page, outcome.from);
      const key = `${elementPath(outcome.from)} ${at.path}@${at.offset}`;
      const group = groups.get(key);
      if (group) group.names.push(name);
      else groups.set(key, { outcome, names: [name] });
    }
    return [...groups.values()].map(({ outcome, names: longhands }) => {
      const { contender } = outcome.outcome as Outcome & { kind: 'declared' };
      const property = longhands.length === 1 ? longhands[0]! : contender.compiled.declaration.property;
      const entry = {
        ...this.entryAt(contender, property, outcome.from),
        state: 'wins' as const,
        reason: { kind: 'inherited' as const, words: `on ${elementName(outcome.from)}` },
      };
      return { property, longhands, entries: [entry], ...this.inherited(outcome) };
    });
  }

  private entry(
    one: Contender,
    property: string,
    winner: Contender | undefined,
    inPlay: readonly Contender[],
  ): TableEntry {
    const base = this.entryAt(one, property, this.element);
    if (one.applies && !inPlay.includes(one))
      return { ...base, state: 'peeled', reason: { kind: 'peeled', words: 'peeled' } };
    if (one === winner) return { ...base, state: 'wins', reason: undefined };
    const reason = losingReason(one, winner);
    return { ...base, state: one.applies ? 'loses' : 'idle', reason };
  }

  private entryAt(one: Contender, property: string, on: ElementNode): Omit<TableEntry, 'state' | 'reason'> {
    const at = placeOfContender(one, this.page, on);
    const { declaration } = one.compiled;
    return {
      id: `${at.path}@${at.offset}`,
      source: on === this.element || one.origin === 'rule' ? sourceIdOf(one) : 'ancestor',
      declared: declaration.property === property ? '' : declaration.property,
      value: declaration.value,
      important: declaration.important,
      selector: one.selector ?? one.hint?.attribute,
      rule: one.rule?.rule.selector,
      specificity: one.rule ? printSpecificity(one.specificity) : undefined,
      file: at.path,
      line: this.linesOf(at.path).placeOf(at.offset).line,
    };
  }

  private linesOf(path: string): LineIndex {
    let known = this.lines.get(path);
    if (!known) this.lines.set(path, (known = new LineIndex(this.site.files.get(path)?.text ?? '')));
    return known;
  }
}

/** Hovering an element hovers its ancestors as well; focus inside is theirs too. Selectors 4, "User Action Pseudo-classes". */
function forcedStates(element: ElementNode, names: readonly string[]): ForcedStates {
  const own = new Set(names);
  if (own.has('focus') || own.has('focus-visible')) own.add('focus').add('focus-within');
  const above = new Set([...own].filter((name) => /^(hover|active|focus-within)$/.test(name)));
  const states = new Map([[element, own]]);
  for (let at = parentElement(element); at; at = parentElement(at)) states.set(at, above);
  return states;
}
