import type { MessagePort } from 'node:worker_threads';
import type {
  FamiliesReply,
  DraftReply,
  FileTextReply,
  OperationBody,
  ProofReply,
  ProposalReply,
  SiteFiguresReply,
  SurveyReply,
} from '@syndeton/contract';

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

/** What worker threads compute. Everything crosses as plain data. */
export interface AnalysisTasks {
  survey(input: { state: SiteState }): Promise<SurveyReply>;
  families(input: { state: SiteState }): Promise<FamiliesReply>;
  draft(input: { state: SiteState }): Promise<DraftReply>;
  proof(input: { state: SiteState; port?: MessagePort }): Promise<ProofReply>;
  proposal(input: { state: SiteState; sheet: string; pages: readonly string[] | undefined }): Promise<ProposalReply>;
  file(input: { state: SiteState; path: string }): Promise<{ text: FileTextReply; bytes: Uint8Array } | undefined>;
  changedFiles(input: {
    state: SiteState;
  }): Promise<{ files: readonly ChangedBytes[]; sentences: readonly string[]; figures: SiteFiguresReply }>;
  changesBetween(input: { siteId: string; from: number; to: number }): Promise<DraftReply['changes']>;
  figures(input: { files: readonly (readonly [string, Uint8Array])[] }): Promise<SiteFiguresReply>;
}
