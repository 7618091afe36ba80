import type { Analysis } from '../../analysis/analysis.ts';
import { Refusal } from '../../http/refusal.ts';
import type { Handlers } from '../../http/router.ts';
import type { DraftService } from '../drafts/index.ts';

interface Services {
  readonly drafts: DraftService;
  readonly analysis: Analysis;
}

/** What rules of sheets reach and win, and the words of a site. */
export function sheetHandlers({
  drafts,
  analysis,
}: Services): Handlers<'readSheet' | 'readRule' | 'matchSelector' | 'readWords' | 'readMarkup'> {
  return {
    async readSheet({ params, query }, { signal }) {
      const state = await drafts.stateAt(params, query);
      const found = await analysis.run(state.siteId, 'sheetReach', { state, path: query.path }, { signal });
      if (!found) throw new Refusal('file-not-found', `There is no sheet ${query.path}. Ask with ?path=css/site.css.`);
      return found;
    },
    async readRule({ params, query }, { signal }) {
      const state = await drafts.stateAt(params, query);
      const { path, start, medium = 'screen', width = 1280 } = query;
      const environment = { medium, width, height: 800 };
      return analysis.run(state.siteId, 'ruleScore', { state, path, start, environment }, { signal });
    },
    async matchSelector({ params, query }, { signal }) {
      const state = await drafts.stateAt(params, query);
      const { selector, sheet } = query;
      const found = await analysis.run(state.siteId, 'match', { state, selector, sheet }, { signal });
      if (!found) throw new Refusal('question-refused', `Browsers cannot read the selector ${selector}.`);
      return found;
    },
    async readMarkup({ params, query }, { signal }) {
      const state = await drafts.stateAt(params, query);
      return { findings: await analysis.run(state.siteId, 'markup', { state }, { signal }) };
    },
    async readWords({ params, query }, { signal }) {
      const state = await drafts.stateAt(params, query);
      return analysis.run(state.siteId, 'words', { state }, { signal });
    },
  };
}
