import type { MessagePort } from 'node:worker_threads';
import type {
  AttributeGroupsReply,
  ChangedSiteReply,
  DraftReply,
  ElementTableReply,
  FileTextReply,
  OperationBody,
  OverridesReply,
  PageBandsReply,
  PlanSettingsRequest,
  ProofReply,
  ProposalReply,
  QuestionReply,
  ValuePlacesReply,
} from '@syndeton/contract';
import type { ElementQuery, Environment, SiteQuestion } from '@syndeton/core';
import type { Inventory } from './inventory.ts';

/** Which state of a site a task is about: a revision, with operations lined up on it. */
export interface SiteState {
  readonly siteId: string;
  readonly number: number;
  readonly operations: readonly OperationBody[];
}

export interface ChangedBytes {
  readonly path: string;
  readonly bytes: Uint8Array | undefined;
}

export type NewFiles = readonly (readonly [path: string, bytes: Uint8Array])[];

/** What worker threads compute. Everything crosses as plain data; a port tells how far a long task is. */
export interface AnalysisTasks {
  inventory(input: { state: SiteState; port?: MessagePort }): Promise<Inventory>;
  /** Of files that are in no site yet. */
  inventoryOfFiles(input: { files: NewFiles; port?: MessagePort }): Promise<Inventory>;
  /** Of a revision with files put in or taken out; and what the new pages lack that those beside them link. */
  inventoryOfChange(input: {
    siteId: string;
    number: number;
    files: NewFiles;
    removed: readonly string[];
    port?: MessagePort;
  }): Promise<{ inventory: Inventory; lacking: ChangedSiteReply['lacking'] }>;
  page(input: { state: SiteState; path: string }): Promise<PageBandsReply | undefined>;
  attributes(input: { state: SiteState }): Promise<AttributeGroupsReply>;
  element(input: { state: SiteState; query: ElementQuery }): Promise<ElementTableReply | undefined>;
  question(input: { state: SiteState; question: SiteQuestion }): Promise<QuestionReply | { refused: string }>;
  overrides(input: { state: SiteState; environment: Environment }): Promise<OverridesReply>;
  value(input: { state: SiteState; value: string }): Promise<ValuePlacesReply>;
  draft(input: { state: SiteState }): Promise<DraftReply>;
  proof(input: { state: SiteState; port?: MessagePort }): Promise<ProofReply>;
  proposal(input: {
    state: SiteState;
    sheet: string;
    pages: readonly string[] | undefined;
    settings: PlanSettingsRequest | undefined;
  }): Promise<ProposalReply>;
  file(input: { state: SiteState; path: string }): Promise<{ text: FileTextReply; bytes: Uint8Array } | undefined>;
  changedFiles(input: { state: SiteState }): Promise<{ files: readonly ChangedBytes[]; sentences: readonly string[] }>;
  changesBetween(input: { siteId: string; from: number; to: number }): Promise<DraftReply['changes']>;
}
