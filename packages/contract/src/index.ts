export { Survey, PageSurvey, SheetSurvey, RepeatedBlock, SurveySource, type SurveyReply } from './survey.ts';
export { Proof, PageProof, type ProofReply } from './proof.ts';
export { GatherReport, type GatherReportReply } from './gather.ts';
export { GatherRulesOperation, EditSheetOperation, Operation, Operations, type OperationBody } from './operations.ts';
export {
  CreatedSite,
  Draft,
  DraftBody,
  DraftProof,
  Families,
  FileText,
  Problem,
  Proposal,
  ProposalBody,
  RestoreBody,
  SaveBody,
  SavedRevision,
  SiteDetail,
  SiteSummary,
  type ChangedFileReply,
  type CreatedSiteReply,
  type DraftBodyRequest,
  type DraftProofReply,
  type DraftReply,
  type FamiliesReply,
  type FamilyReply,
  type FileTextReply,
  type LeftOutReply,
  type ProblemReply,
  type ProposalReply,
  type ProposalRequest,
  type RestoreRequest,
  type SavedRevisionReply,
  type SaveRequest,
  type SiteDetailReply,
  type SiteFiguresReply,
  type SiteSummaryReply,
} from './api.ts';
export { openApiDocument, routes } from './routes.ts';
