export { succeed, fail, type Result } from './source/result.ts';
export { LineIndex, placeOf, textOf, type Edit, type Span } from './source/span.ts';
export { applyEdits } from './source/applyEdits.ts';
export { smallestEdit } from './source/smallestEdit.ts';
export { contentHash } from './source/contentHash.ts';
export { decodeText, encodeText } from './source/textCoding.ts';
export {
  describePathProblem,
  extensionOf,
  fileKindOf,
  fileNameOf,
  folderOf,
  parseSitePath,
  relativePath,
  runEndings,
  type FileKind,
} from './source/sitePath.ts';
export {
  byPath,
  isAbsent,
  makeSite,
  makeSiteFile,
  pagesOf,
  sheetsOf,
  decisionsOf,
  runPagesUnread,
  withAbsent,
  withRunPages,
  withDecisions,
  type SiteDecisions,
  type Site,
  type SiteFile,
} from './source/site.ts';
export { withoutCode } from './source/templates.ts';
export { sheetsNotHere, type SheetNotHere } from './survey/sheetsNotHere.ts';
export { describeTakenAsNothing, isRemoteAddress, isTakenAsNothing } from './values/takenAsNothing.ts';
export { applyChangeSet, changedFiles, describeChangeProblem, type ChangeSet } from './source/changeSet.ts';
export { contrastRatio } from './values/contrast.ts';
export { comparableValue } from './values/comparableValue.ts';
export { declarationValidity } from './values/declarationValidity.ts';
export { flowOf, slotOf, type Flow } from './values/logicalSlot.ts';
export { longhandsForAll, longhandsOf, propertyName } from './values/longhands.ts';
export { unescapeCss } from './values/unescape.ts';
export { parseSheet } from './sheet/parseSheet.ts';
export type { Declaration, Rule, Sheet, StyleRule } from './sheet/sheet.ts';
export { matchesSelectors } from './selectors/matchesSelectors.ts';
export { elementName, elementPath, parsePage, textContent, type PageTree } from './page/parsePage.ts';
export type { ElementNode } from './page/nodes.ts';
export { parseSelectorList } from './selectors/parseSelector.ts';
export { printSpecificity, type Specificity } from './selectors/selector.ts';
export { desktop, type Environment } from './cascade/environment.ts';
export { CascadeSession, type PageCascade } from './cascade/pageCascade.ts';
export type { Contender, View } from './cascade/contenders.ts';
export { placeOfContender } from './cascade/contenderPlace.ts';
export { hintsOf } from './cascade/hints.ts';
export { PageOutcomes, type Outcome } from './cascade/pageOutcomes.ts';
export { pageWinners, siteWinners, type WinnerLine } from './cascade/siteWinners.ts';
export { driftedProperties, familiesOf, type Family, type FamilyVersion } from './survey/families.ts';
export { describeStayReason, embeddedBlocks, type StayReason } from './survey/blockUnits.ts';
export { linkedSheets } from './survey/linkedSheets.ts';
export { surveySite } from './survey/surveySite.ts';
export type { PageSurvey, RepeatedBlock, SheetSurvey, SourceKind, Survey, SurveySource } from './survey/survey.ts';
export { checkSite, SiteChecker, type CheckOptions, type SiteCheck } from './checks/checkSite.ts';
export { markupFindings } from './checks/pageMarkup.ts';
export {
  describeSeverity,
  findingKinds,
  severityOf,
  type Finding,
  type FindingKind,
  type FindingPlace,
  type FoundFinding,
  type Severity,
} from './checks/finding.ts';
export type { TextFinding, TextFindingKind } from './checks/text/textFinding.ts';
export { textFindings } from './checks/text/textFindings.ts';
export { mediaSlip, type MediaSlip } from './checks/text/mediaSlips.ts';
export { pageBands, type BandRule, type PageBand, type PageBands } from './survey/pageBands.ts';
export { stillHolding, type HoldingPage } from './checks/stillHolding.ts';
export type { RuleReach } from './survey/reach.ts';
export { proveSites } from './proof/proveSites.ts';
export { changesOfLook, type ChangeOfLook } from './proof/effectGroups.ts';
export { markIntended } from './proof/intended.ts';
export { SiteProver, type ProofOptions } from './proof/siteProver.ts';
export type { ProofPartner, SharedPage, SharedProof } from './proof/partner.ts';
export { packedFile, packedName, termsOf, unpackedFile, type PackedFile, type SiteTerms } from './source/packedFile.ts';
export { knownNames } from './survey/elementNames.ts';
export type { Cause, Decider, ElementRef, PageProof, Place, Proof, Verdict } from './proof/proof.ts';
export { describeSheetPathProblem, parseSheetPath } from './operations/sheetPath.ts';
export {
  planGatherRules,
  type GatherPlan,
  type GatherRules,
  type RuleChoice,
} from './operations/gather/gatherRules.ts';
export type { GatherSheet, PageMark, WrittenRule } from './operations/gather/gatherSheet.ts';
export { takenAsMissing, type TakeAsMissing } from './operations/links/takeAsMissing.ts';
export { planStepOf, withoutLastStep, withoutPlan } from './operations/planStep.ts';
export { describeAttributeStays } from './operations/gather/attributeStays.ts';
export {
  planGatherAttributes,
  type AttributeGroup,
  type AttributesPlan,
  type GatherAttributes,
} from './operations/gather/gatherAttributes.ts';
export { unifiedPatch, type UnifiedPatch } from './handoff/unifiedPatch.ts';
export type { Trade } from './plan/trades.ts';
export { outsideChanges, type OutsideChanges } from './handoff/outsideChanges.ts';
export { tradesIn } from './plan/tradesIn.ts';
export { planFigures, type PlanFigures } from './plan/planFigures.ts';
export { planWhole } from './plan/planWhole.ts';
export type { WholePlan, WholePlanOptions } from './plan/wholePlan.ts';
export { whatStays, type Staying, type StayingCode } from './plan/staying.ts';
export { lackingLinks, type LackingPage, type LinkAlike } from './operations/links/linkAlike.ts';
export { elementTable, type ElementQuery } from './precedence/elementTable.ts';
export type { ElementTable, TableEntry, TableRow } from './precedence/tableRow.ts';
export type { TableSource } from './precedence/tableSources.ts';
export type { Reason, ReasonKind, Sentence } from './precedence/reasons.ts';
export { valuePlaces, type ValuePlace } from './precedence/valuePlaces.ts';
export { pagesWithAttribute, pagesWithBlock } from './precedence/equalSources.ts';
export { KeptOutcomes } from './precedence/keptOutcomes.ts';
export { outcomesAfter } from './precedence/outcomesAfter.ts';
export {
  askSite,
  describeQuestionProblem,
  type QuestionAnswer,
  type QuestionValue,
  type SiteQuestion,
} from './precedence/question.ts';
export type { Decider as ValueDecider } from './precedence/deciders.ts';
export {
  findOverrides,
  type AlwaysBeaten,
  type Override,
  type OverrideCause,
  type Overrides,
} from './precedence/overrides.ts';
export { selectorReach, type SelectorReach } from './precedence/sheetReach.ts';
export { ruleScore, type Beater, type DeclarationScore, type RuleScore } from './precedence/ruleScore.ts';
export { coloursIn, noWords, siteWords, type SiteWords, type UsedWord } from './writing/siteWords.ts';
export { completionsAt, type Completion, type Completions } from './writing/completions.ts';
export { ruleAt, sheetOutline, type OutlinedDeclaration, type OutlinedRule } from './writing/sheetOutline.ts';
export type { LeftRule } from './operations/gather/leftRule.ts';
export type { OperationPlan } from './operations/operationType.ts';
export type { LinkPlace } from './operations/links/linkPlace.ts';
export { printLink, type PageSyntax } from './page/pageSyntax.ts';
export { encodePath } from './values/urls.ts';
export type { PathStyle } from './operations/links/linkTag.ts';
export type { MendFinding } from './operations/pages/mend.ts';
export type { EditSheet } from './operations/sheets/editSheet.ts';
export {
  applyOperations,
  lookChoices,
  siteAsChosen,
  describeOperationProblem,
  operationTypes,
  planOperation,
  type DraftSite,
  type Operation,
  type OperationProblem,
} from './operations/operation.ts';
export { KeptDraft, type KeptDraftState } from './operations/keptDraft.ts';
export { operationsBeyond, redoOnTop } from './operations/redoOnTop.ts';
export type { PlannedSheet, PlanOptions } from './plan/planOptions.ts';
export type { SinglePage } from './plan/partition.ts';
export { attributesSheetBeside, freeSheetName } from './plan/freeSheetName.ts';
export { baselineText } from './operations/links/baselineText.ts';
export type { AddBaseline } from './operations/links/addBaseline.ts';
export type { CopyLinks } from './operations/links/copyLinks.ts';
export type { ImportToLink } from './operations/links/importToLink.ts';
export type { LinkSheet } from './operations/links/linkSheet.ts';
export type { LinkToImport } from './operations/links/linkToImport.ts';
export type { MoveLink } from './operations/links/moveLink.ts';
export type { SetLink } from './operations/links/setLink.ts';
export type { UnlinkSheet } from './operations/links/unlinkSheet.ts';
export type { RenameSheet } from './operations/sheets/renameSheet.ts';
export type { DropDeclaration } from './operations/overrides/dropDeclaration.ts';
export type { KeepLook } from './operations/overrides/keepLook.ts';
export { sayingBefore } from './operations/overrides/sayingBefore.ts';
export type { ShareDeclaration } from './operations/overrides/shareDeclaration.ts';
export type { GatherBlocks } from './operations/gather/gatherBlocks.ts';
export type { GatherHints } from './operations/gather/gatherHints.ts';
export type { SettleDrift } from './operations/gather/settleDrift.ts';
export { PlanSettings } from './operations/gather/planSettings.ts';
export type { FollowRule } from './operations/gather/followRule.ts';
export type { SettleAttributes } from './operations/gather/settleAttributes.ts';
export type { WrapContent } from './operations/pages/wrapContent.ts';
export type { DropAttribute, DropBlock } from './operations/overrides/dropSource.ts';
export type { AddRule } from './operations/rules/addRule.ts';
export type { ChangeRule } from './operations/rules/changeRule.ts';
export type { CommentIn } from './operations/rules/commentIn.ts';
export type { DeleteRules } from './operations/rules/deleteRules.ts';
export { duplicateEdits } from './operations/rules/duplicateEdits.ts';
export type { DropBeaten } from './operations/rules/dropBeaten.ts';
export type { PartPage } from './operations/rules/partPage.ts';
export type { SortRules } from './operations/rules/sortRules.ts';
export type { UniteValues } from './operations/rules/uniteValues.ts';
export type { DropDuplicates } from './operations/rules/dropDuplicates.ts';
export { withoutOperation, type PastRevision } from './operations/withoutOperation.ts';
export { averageWeight, type PageWeight } from './handoff/pageWeight.ts';
export { handoffReport, type HandoffReport, type ReportedFile, type ReportedRevision } from './handoff/report.ts';
export { reportHtml } from './handoff/reportHtml.ts';
export { reportCsv } from './handoff/reportCsv.ts';
export { applyRecipe, makeRecipe, type AppliedRecipe, type Recipe } from './plan/recipe.ts';
export { uploadOrder, type UploadOrder } from './handoff/uploadOrder.ts';
export { nearValues, type NearValues, type SaidValue } from './operations/rules/nearValues.ts';
export { equalRules } from './operations/rules/equalRules.ts';
export type { GroupRules } from './operations/rules/groupRules.ts';
export type { MoveRules } from './operations/rules/moveRules.ts';
export { printedRule, setInRule, dropFromRule, type Said } from './operations/rules/ruleEdits.ts';
export type { RuleRef } from './operations/rules/ruleRef.ts';
export type { SplitRule } from './operations/rules/splitRule.ts';
export type { DeleteSheet } from './operations/sheets/deleteSheet.ts';
export type { MergeSheets } from './operations/sheets/mergeSheets.ts';
export type { NewSheet } from './operations/sheets/newSheet.ts';
export type { SplitSheet } from './operations/sheets/splitSheet.ts';
export type { GiveClass } from './operations/names/giveClass.ts';
export type { RenameName } from './operations/names/renameName.ts';
export { isPlainName, type NameKind } from './operations/names/nameEdits.ts';
export type { ColourNotation } from './operations/rules/colourNotation.ts';
export type { DropUnused } from './operations/rules/dropUnused.ts';
export type { ValuesToProperties } from './operations/rules/valuesToProperties.ts';
