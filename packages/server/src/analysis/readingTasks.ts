import { linkedSheets, pageBands, markupFindings, selectorReach } from '@syndeton/core';
import type { PageBandsReply } from '@syndeton/contract';
import { Refusal } from '../http/refusal.ts';
import { attributeGroups } from './attributeGroups.ts';
import { findingReply } from './inventory.ts';
import { elementReply, overridesReply, questionReply, valueReply } from './precedence.ts';
import { ruleScoreReply, sheetReachReply, wordsReply } from './sheetReplies.ts';
import type { SiteStates } from './siteStates.ts';
import type { Tasks } from './tasks.ts';

/** What is asked of a state without changing anything. */
export const readingTasks = (
  states: SiteStates,
): Tasks<
  | 'page'
  | 'attributes'
  | 'element'
  | 'question'
  | 'overrides'
  | 'value'
  | 'sheetReach'
  | 'ruleScore'
  | 'match'
  | 'markup'
  | 'words'
> => ({
  async page({ state, path }) {
    const bands = pageBands((await states.draftOf(state)).site, path);
    return (
      bands &&
      (JSON.parse(JSON.stringify(bands, (_key, one: unknown) => (one === undefined ? null : one))) as PageBandsReply)
    );
  },
  async attributes({ state }) {
    return attributeGroups((await states.draftOf(state)).site);
  },
  async element({ state, query }) {
    return elementReply((await states.draftOf(state)).site, query);
  },
  async question({ state, question }, step) {
    const { site, outcomes } = await states.outcomesOf(state, step);
    const answer = questionReply(site, outcomes, question);
    if ('refused' in answer) throw new Refusal('question-refused', answer.refused);
    return answer;
  },
  async overrides({ state, environment }, step) {
    const { site, outcomes } = await states.outcomesOf(state, step);
    return overridesReply(site, outcomes, environment);
  },
  async value({ state, value }) {
    return valueReply((await states.draftOf(state)).site, value);
  },
  async sheetReach({ state, path }, step) {
    const { site, outcomes } = await states.outcomesOf(state, step);
    return sheetReachReply(site, outcomes, path);
  },
  async ruleScore({ state, ...asked }, step) {
    const { outcomes } = await states.outcomesOf(state, step);
    return ruleScoreReply(outcomes, asked);
  },
  async match({ state, selector, sheet }, step) {
    const { site, outcomes } = await states.outcomesOf(state, step);
    const linking =
      sheet === undefined ? undefined : (linkedSheets(site).find(({ path }) => path === sheet)?.pages ?? []);
    const reach = selectorReach(outcomes, selector, linking && new Set(linking));
    return reach && { elements: reach.elements, pages: [...reach.pages] };
  },
  async markup({ state }, step) {
    const { site } = await states.draftOf(state);
    return markupFindings(site, step).map(findingReply);
  },
  async words({ state }, step) {
    const { site, outcomes } = await states.outcomesOf(state, step);
    return wordsReply(site, outcomes);
  },
});
