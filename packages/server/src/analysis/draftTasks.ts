import {
  applyOperations,
  describeOperationProblem,
  planWhole,
  tradesIn,
  lookChoices,
  markIntended,
  sheetsNotHere,
  siteAsChosen,
  withAbsent,
  applyRecipe,
} from '@syndeton/core';
import type { ProofReply, ProposalReply } from '@syndeton/contract';
import { Refusal } from '../http/refusal.ts';
import { effectReply } from './sheetReplies.ts';
import { madeDraft } from './draftReply.ts';
import type { SiteStates } from './siteStates.ts';
import type { Tasks } from './tasks.ts';

/** What operations on a revision come to: their files, their proof, an edit tried, a plan, a recipe. */
export const draftTasks = (states: SiteStates): Tasks<'draft' | 'proof' | 'effect' | 'proposal' | 'recipe'> => ({
  async draft({ state, have }) {
    return madeDraft(state, await states.draftOf(state), new Set(have));
  },
  async proof({ state }, onPage) {
    const { site, before, prover } = await states.draftOf(state);
    const proof = prover.prove(site, { onPage });
    const chosen = proof.verdict === 'differs' && lookChoices(state.operations).length > 0;
    return (chosen
      ? markIntended(proof, withAbsent(siteAsChosen(before, state.operations), [...(site.absent ?? [])]), site)
      : proof) as unknown as ProofReply;
  },
  async effect({ state, operations }) {
    const draft = await states.draftOf(state);
    const { site, problem } = draft;
    if (problem) throw new Refusal('operation-refused', problem.detail);
    const next = applyOperations(site, operations);
    if (!next.ok) throw new Refusal('operation-refused', describeOperationProblem(next.problem.problem));
    return effectReply(states.proverOf(draft).prove(next.value.site));
  },
  async proposal({ state, sheet, pages, settings }, step) {
    const { site, before, prover } = await states.draftOf(state);
    // the proof of the plan is the one that the draft is asked for next
    const planned = planWhole(
      site,
      sheet,
      {
        ...settings,
        ...(pages ? { pages } : {}),
        onStep: (what, done, total) => step(done, total, undefined, what === 'proving'),
      },
      site === before ? prover : undefined,
    );
    if (!planned.ok) throw new Refusal('operation-refused', describeOperationProblem(planned.problem));
    const { operations, sheets, stays } = planned.value;
    return {
      operations,
      rules: sheets.reduce((sum, s) => sum + s.rules, 0),
      sheets: sheets.map(({ path, rules, pages, why }) => ({
        path,
        rules,
        pages: [...pages],
        ...(why === undefined ? {} : { why }),
      })),
      stays: [...stays],
      trades: JSON.parse(
        JSON.stringify(tradesIn(site, operations, settings?.oldBrowsers ? { oldBrowsers: true } : {})),
      ) as ProposalReply['trades'],
      missing: sheetsNotHere(site)
        .filter(({ path }) => !(site.absent?.has(path) ?? false))
        .map((one) => ({ ...one, pages: [...one.pages] })),
    };
  },
  async recipe({ state, recipe }) {
    const { site, problem } = await states.draftOf(state);
    if (problem) throw new Refusal('operation-refused', problem.detail);
    const { operations, fits, misfits } = applyRecipe(site, recipe);
    return { operations: [...operations], fits: [...fits], misfits: [...misfits] };
  },
});
