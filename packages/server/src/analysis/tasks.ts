import type {
  AttributeGroupsReply,
  ChangedSiteReply,
  DraftReply,
  EffectReply,
  ElementTableReply,
  FindingReply,
  OperationBody,
  OverridesReply,
  PageBandsReply,
  PlanSettingsRequest,
  ProofReply,
  RuleScoreReply,
  SelectorReachReply,
  SheetReachReply,
  SiteWordsReply,
  ProposalReply,
  QuestionReply,
  ValuePlacesReply,
  FittedRecipeReply,
  RecipeReply,
} from '@syndeton/contract';
import type {
  ElementQuery,
  Environment,
  HandoffReport,
  ReportedRevision,
  SiteDecisions,
  SiteQuestion,
} from '@syndeton/core';
import type { Inventory } from './inventory.ts';

/** Which state of a site a task is about: a revision, with the operations of a draft on it. */
export interface SiteState {
  readonly siteId: string;
  readonly number: number;
  readonly operations: readonly OperationBody[];
}

export type NewFiles = readonly (readonly [path: string, bytes: Uint8Array])[];

/** A draft as its operations leave it. */
export interface MadeDraft {
  readonly draft: Omit<DraftReply, 'version'>;
  readonly decisions: SiteDecisions;
  /** The files it changes with the hash of their bytes; null for those it takes out. */
  readonly files: readonly (readonly [path: string, hash: string | null])[];
  /** The bytes of hashes that the one who asked does not have. */
  readonly bytes: readonly (readonly [hash: string, bytes: Uint8Array])[];
}

/** What threads compute. Everything crosses as plain data. */
export interface AnalysisTasks {
  inventory(input: { state: SiteState }): Promise<Inventory>;
  /** Of files that are in no site yet. */
  inventoryOfFiles(input: { files: NewFiles; runPages: readonly string[] }): Promise<Inventory>;
  /** Of a revision with files put in or taken out; and what the new pages lack that those beside them link. */
  inventoryOfChange(input: {
    siteId: string;
    number: number;
    files: NewFiles;
    removed: readonly string[];
    /** Endings of files that are pages from now on. */
    runPages?: readonly string[];
  }): Promise<{ inventory: Inventory; lacking: ChangedSiteReply['lacking']; decisions: SiteDecisions }>;
  page(input: { state: SiteState; path: string }): Promise<PageBandsReply | undefined>;
  attributes(input: { state: SiteState }): Promise<AttributeGroupsReply>;
  element(input: { state: SiteState; query: ElementQuery }): Promise<ElementTableReply | undefined>;
  question(input: { state: SiteState; question: SiteQuestion }): Promise<QuestionReply>;
  overrides(input: { state: SiteState; environment: Environment }): Promise<OverridesReply>;
  value(input: { state: SiteState; value: string }): Promise<ValuePlacesReply>;
  /** Undefined when there is no such sheet. */
  sheetReach(input: { state: SiteState; path: string }): Promise<SheetReachReply | undefined>;
  ruleScore(input: {
    state: SiteState;
    path: string;
    start: number;
    environment: Environment;
  }): Promise<RuleScoreReply>;
  /** Undefined when browsers refuse the selector. */
  match(input: {
    state: SiteState;
    selector: string;
    sheet: string | undefined;
  }): Promise<SelectorReachReply | undefined>;
  markup(input: { state: SiteState }): Promise<FindingReply[]>;
  words(input: { state: SiteState }): Promise<SiteWordsReply>;
  /** `have`: hashes of changed files whose bytes are known already. */
  draft(input: { state: SiteState; have: readonly string[] }): Promise<MadeDraft>;
  proof(input: { state: SiteState }): Promise<ProofReply>;
  /** What further operations would do to the draft. */
  effect(input: { state: SiteState; operations: readonly OperationBody[] }): Promise<EffectReply>;
  proposal(input: {
    state: SiteState;
    sheet: string;
    pages: readonly string[] | undefined;
    settings: PlanSettingsRequest | undefined;
  }): Promise<ProposalReply>;
  /** The newest revision as it would be without one operation of an earlier one: its files that are others then. */
  without(input: {
    siteId: string;
    number: number;
    newest: number;
    operation: number;
    steps: readonly (readonly OperationBody[])[];
  }): Promise<{
    files: readonly (readonly [path: string, bytes: Uint8Array | null])[];
    inventory: Inventory;
    decisions: SiteDecisions;
  }>;
  reportBetween(input: {
    siteId: string;
    from: number;
    to: number;
    title: string;
    revisions: readonly ReportedRevision[];
  }): Promise<HandoffReport>;
  recipe(input: { state: SiteState; recipe: RecipeReply }): Promise<FittedRecipeReply>;
  patchBetween(input: { siteId: string; from: number; to: number }): Promise<Uint8Array>;
  /** Against revision `from` of the same site, or of `against`. */
  proofBetween(input: { from: number; against: string | undefined; state: SiteState }): Promise<ProofReply>;
  changesBetween(input: { siteId: string; from: number; to: number }): Promise<DraftReply['changes']>;
}

/** Called after each page of a long task: tells how far it is, and ends it when nobody waits for it. */
export type Step = (done: number, total: number, rules?: number, proving?: boolean) => void;

/** Some of the tasks, as a thread does them. */
export type Tasks<Names extends keyof AnalysisTasks> = {
  readonly [Name in Names]: (input: Parameters<AnalysisTasks[Name]>[0], step: Step) => ReturnType<AnalysisTasks[Name]>;
};
