import type { DraftReply, ProofReply, SiteDetailReply, SurveyReply } from '@syndeton/contract';
import type { StationFigure } from './Stations.tsx';
import { isAboutLinks } from '../links/index.ts';
import type { StationName } from '../site/index.ts';

const blank: StationFigure = { tied: false, waiting: 0, number: '', words: '' };

/** Before the pages are read nothing is claimed. */
const unknownFigures: Readonly<Record<StationName, StationFigure>> = {
  survey: blank,
  gather: blank,
  sheets: blank,
  links: blank,
  precedence: blank,
  proof: blank,
  'hand-off': blank,
};

/** Something wrong with what a sheet says, not only worth knowing. */
const isAboutSheetText = ({ kind, places }: SurveyReply['findings'][number]): boolean =>
  /^(brace|unclosed|markup-in-sheet|refused-selector|media-query|misplaced-rule|unknown-property|invalid-value)$/.test(
    kind,
  ) && places.some(({ path }) => /\.css$/i.test(path));

/** The live figure of each station: what is left, what waits. */
export function stationFigures(
  survey: SurveyReply | undefined,
  draft: DraftReply | undefined,
  proof: ProofReply | undefined,
  site: SiteDetailReply | undefined,
  /** Declarations in pages that beat shared ones, as Precedence lists them; undefined while nobody counted. */
  overrides?: number,
): Readonly<Record<StationName, StationFigure>> {
  if (!survey || !draft) return unknownFigures;
  const rules = survey.pages.reduce((sum, page) => sum + page.embeddedRules, 0);
  const attributes = survey.pages.reduce((sum, page) => sum + page.styleAttributes, 0);
  const { drifted } = survey;
  const broken = survey.findings.filter(({ kind }) => isAboutLinks.test(kind)).length;
  const wrongSheets = survey.findings.filter(isAboutSheetText).length;
  const pagesThat = (verdict: string): number => proof?.pages.filter((page) => page.verdict === verdict).length ?? 0;
  const [unsure, intended] = [pagesThat('unsure'), pagesThat('intended')];
  const differing = (proof?.pages.length ?? 0) - pagesThat('same') - unsure - intended;
  const inDraft = draft.operations.length > 0;
  const saved = site !== undefined && site.revision > 1;
  const handed = site?.revisions.filter((r) => r.number > 1).reduce((sum, r) => sum + r.changedFiles, 0) ?? 0;
  return {
    survey: {
      tied: true,
      waiting: 0,
      number: survey.pages.length.toLocaleString('en'),
      words: survey.pages.length === 1 ? 'page' : 'pages',
    },
    gather: {
      tied: rules === 0,
      waiting: rules === 0 ? 0 : drifted,
      number: (rules + attributes).toLocaleString('en'),
      words: 'left',
    },
    sheets: {
      tied: false,
      waiting: wrongSheets,
      number: String(wrongSheets > 0 ? wrongSheets : draft.sheets.length),
      words: wrongSheets > 0 ? 'to mend' : draft.sheets.length === 1 ? 'sheet' : 'sheets',
    },
    links: {
      tied: broken === 0,
      waiting: broken,
      number: broken === 0 ? '' : String(broken),
      words: broken === 0 ? 'all linked' : 'to mend',
    },
    precedence: {
      tied: overrides === 0 && rules === 0,
      waiting: overrides ?? 0,
      number: overrides ? String(overrides) : '',
      words:
        overrides === 0
          ? 'no override'
          : overrides === undefined
            ? 'who decides'
            : overrides === 1
              ? 'override'
              : 'overrides',
    },
    proof: proofFigure(inDraft, saved, proof, differing, unsure, intended),
    'hand-off': {
      tied: false,
      waiting: 0,
      number: saved ? String(handed) : '',
      words: saved ? (handed === 1 ? 'file changed' : 'files changed') : 'no change yet',
    },
  };
}

function proofFigure(
  inDraft: boolean,
  saved: boolean,
  proof: ProofReply | undefined,
  differing: number,
  unsure: number,
  intended: number,
): StationFigure {
  if (!inDraft) return { tied: false, waiting: 0, number: '', words: saved ? 'what was saved' : 'nothing to compare' };
  if (!proof) return { tied: false, waiting: 0, number: '', words: 'at work' };
  if (differing === 0 && unsure > 0)
    return { tied: false, waiting: unsure, number: String(unsure), words: 'cannot be told' };
  if (differing === 0 && intended > 0)
    return { tied: true, waiting: 0, number: String(intended), words: 'as you chose' };
  if (differing === 0) return { tied: true, waiting: 0, number: '', words: 'same' };
  return {
    tied: false,
    waiting: differing,
    number: String(differing),
    words: differing === 1 ? 'page differs' : 'pages differ',
  };
}
