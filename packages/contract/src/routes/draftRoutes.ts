import { Type } from '@sinclair/typebox';
import {
  Draft,
  DraftBody,
  DraftProof,
  DraftVersion,
  EffectBody,
  PlanProgress,
  Proposal,
  ProposalBody,
  RedoBody,
  RestoreBody,
  RevisionWordsBody,
  SaveBody,
  SavedRevision,
  WithoutBody,
} from '../api.ts';
import { FittedRecipe, RecipeBody } from '../recipe.ts';
import { Effect } from '../sheets.ts';
import type { Route } from '../route.ts';
import { query } from './queries.ts';

/** The draft, what is planned into it, and revisions made of it or of each other. */
export const draftRoutes = {
  fitRecipe: {
    summary: 'What of a recipe fits the draft, and what does not; the draft stays as it is',
    body: RecipeBody,
    reply: { status: 200, body: FittedRecipe },
    problems: [404, 409, 422],
  },
  readDraft: {
    summary: 'The operations in the draft and what they change',
    reply: { status: 200, body: Draft },
    problems: [404, 422],
  },
  replaceDraft: {
    summary: 'Replace the operations of the draft',
    body: DraftBody,
    reply: { status: 200, body: Draft },
    problems: [404, 409, 422],
  },
  dropDraft: {
    summary: 'Drop the draft; `version` is the one that was seen',
    query: query({ version: Type.Integer({ minimum: 0, maximum: 999_999_999 }) }),
    reply: { status: 204, body: 'empty' },
    problems: [404, 409],
  },
  redoDraft: {
    summary: 'Do again, on the draft as it is now, what was refused because it came too late',
    body: RedoBody,
    reply: { status: 200, body: Draft },
    problems: [404, 409, 422],
  },
  followDraft: {
    summary: 'The version of the draft, told of now and whenever somebody changes it or the site',
    reply: { status: 200, body: DraftVersion, events: true },
    problems: [404],
  },
  readProof: {
    summary: 'The proof of the draft, or how far it is',
    reply: { status: 200, body: DraftProof },
    problems: [404],
  },
  followProof: {
    summary: 'The same, told of while the proof is computed; the stream ends with it',
    reply: { status: 200, body: DraftProof, events: true },
    problems: [404],
  },
  tryOperations: {
    summary: 'What would look different if operations went into the draft next; nothing is changed',
    body: EffectBody,
    reply: { status: 200, body: Effect },
    problems: [404, 409, 422],
  },
  propose: {
    summary: 'Gathers embedded rules and style attributes as far as every page looks the same',
    body: ProposalBody,
    reply: { status: 200, body: Proposal },
    problems: [404, 409, 422],
  },
  followProposal: {
    summary: 'How far the plan of a site is that is being made, as events',
    reply: { status: 200, body: PlanProgress, events: true },
    problems: [404],
  },
  saveDraft: {
    summary: 'Save the draft as a new revision',
    body: SaveBody,
    reply: { status: 201, body: SavedRevision },
    problems: [404, 409, 422],
  },
  restoreRevision: {
    summary: 'Make an earlier revision the newest again',
    body: RestoreBody,
    reply: { status: 201, body: SavedRevision },
    problems: [404, 409],
  },
  wordRevision: {
    summary: 'Give a revision another name, or say why it looks different',
    body: RevisionWordsBody,
    reply: { status: 204, body: 'empty' },
    problems: [404],
  },
  takeOutOperation: {
    summary: 'A new revision: the newest, as it would be without one operation of an earlier one',
    body: WithoutBody,
    reply: { status: 201, body: SavedRevision },
    problems: [404, 409, 422],
  },
} as const satisfies Record<string, Route>;
