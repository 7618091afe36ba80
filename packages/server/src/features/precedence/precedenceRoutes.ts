import type { Environment } from '@syndeton/core';
import type { Analysis } from '../../analysis/analysis.ts';
import { Refusal } from '../../http/refusal.ts';
import type { Handlers } from '../../http/router.ts';
import type { DraftService } from '../drafts/index.ts';
import type { SiteService } from '../sites/index.ts';

interface Services {
  readonly sites: SiteService;
  readonly drafts: DraftService;
  readonly analysis: Analysis;
}

/** Who wins: for one element, for a property over all pages, and where pages beat shared sheets. */
export function precedenceHandlers({
  sites,
  drafts,
  analysis,
}: Services): Handlers<'readElement' | 'askQuestion' | 'listOverrides' | 'findValue'> {
  return {
    async readElement({ params, query }, { signal }) {
      const { path, element, pseudo = '', state: forced = [], peel: peeled = [] } = query;
      const asked = { page: path, element, pseudoElement: pseudo, environment: environmentOf(query), forced, peeled };
      const state = await drafts.stateAt(params, query);
      const table = await analysis.run(state.siteId, 'element', { state, query: asked }, { signal });
      if (!table)
        throw new Refusal(
          'file-not-found',
          `There is no element ${element} on a page ${path}. Ask with ?path= and ?element=, such as html>body:nth-child(2).`,
        );
      return table;
    },
    async askQuestion({ params, query }, { signal }) {
      const question = { selector: query.selector, property: query.property, environment: environmentOf(query) };
      const state = await drafts.stateAt(params, query);
      return analysis.run(state.siteId, 'question', { state, question }, { signal });
    },
    async listOverrides({ params, query }, { signal }) {
      const state = await drafts.stateAt(params, query);
      const environment = environmentOf(query);
      const found = await analysis.run(state.siteId, 'overrides', { state, environment }, { signal });
      const { notes } = await sites.get(params.id);
      return { ...found, overrides: found.overrides.map((one) => ({ ...one, note: notes[one.id] ?? null })) };
    },
    async findValue({ params, query }, { signal }) {
      const state = await drafts.stateAt(params, query);
      return analysis.run(state.siteId, 'value', { state, value: query.value.trim() }, { signal });
    },
  };
}

const environmentOf = ({
  medium = 'screen',
  width = 1280,
}: Partial<Pick<Environment, 'medium' | 'width'>>): Environment => ({ medium, width, height: 800 });
