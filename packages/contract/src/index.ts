export { Survey, PageSurvey, SheetSurvey, RepeatedBlock, SurveySource, type SurveyReply } from './survey.ts';
export { Proof, PageProof, type ProofReply } from './proof.ts';
export { GatherReport, type GatherReportReply } from './gather.ts';
