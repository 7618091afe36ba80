import {
  askSite,
  describeQuestionProblem,
  elementName,
  elementPath,
  elementTable,
  findOverrides,
  pagesWithAttribute,
  pagesWithBlock,
  parsePage,
  textContent,
  valuePlaces,
  type ElementQuery,
  type Environment,
  type KeptOutcomes,
  type Site,
  type SiteQuestion,
} from '@syndeton/core';
import type { ElementTableReply, OverridesReply, QuestionReply, ValuePlacesReply } from '@syndeton/contract';

export function elementReply(site: Site, query: ElementQuery): ElementTableReply | undefined {
  const table = elementTable(site, query);
  if (!table) return undefined;
  const sources = table.sources.map((source) => ({
    ...source,
    pages: [
      ...(source.kind === 'embedded'
        ? pagesWithBlock(site, query.page, source.place - 1)
        : source.kind === 'attribute'
          ? pagesWithAttribute(site, query.page, query.element)
          : []),
    ],
  }));
  return plain({ ...table, sources });
}

export function questionReply(
  site: Site,
  outcomes: KeptOutcomes,
  question: SiteQuestion,
): QuestionReply | { refused: string } {
  const answer = askSite(outcomes, question);
  if (!answer.ok) return { refused: describeQuestionProblem(answer.problem) };
  const named = nameElements(site);
  const values = answer.value.values.map((value) => ({
    ...value,
    deciders: value.deciders.map((decider) => ({ ...decider, first: named(decider.first) })),
  }));
  return plain({ ...answer.value, values });
}

export function overridesReply(site: Site, outcomes: KeptOutcomes, environment: Environment): OverridesReply {
  const { overrides, alwaysBeaten } = findOverrides(outcomes, environment);
  const named = nameElements(site);
  return plain({
    overrides: overrides.map((one) => ({ ...one, first: named(one.first), note: null })),
    alwaysBeaten,
  });
}

const mostPlaces = 2000;

export function valueReply(site: Site, value: string): ValuePlacesReply {
  const places = valuePlaces(site, value);
  return { places: places.slice(0, mostPlaces), total: places.length };
}

/** Reads a page again for the path and text of an element: of each only the first asked for many times. */
function nameElements(site: Site) {
  const trees = new Map<string, ReturnType<typeof parsePage>>();
  return ({ page, index }: { readonly page: string; readonly index: number }) => {
    let tree = trees.get(page);
    if (!tree && trees.size < 100) trees.set(page, (tree = parsePage(site.files.get(page)!.text ?? '')));
    const element = tree?.elements[index];
    if (!element) return { page, element: '', name: '', text: '' };
    const text = textContent(element).replace(/\s+/g, ' ').trim().slice(0, 60);
    return { page, element: elementPath(element), name: elementName(element), text };
  };
}

/** Undefined members become null, as the contract says. */
const plain = <Reply>(value: object): Reply =>
  JSON.parse(JSON.stringify(value, (_key, one: unknown) => (one === undefined ? null : one))) as Reply;
