import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import {
  describeStayReason,
  driftedProperties,
  type FoundFinding,
  type Site,
  type SiteCheck,
  type SiteChecker,
} from '@syndeton/core';
import type { FamiliesReply, FindingReply, SiteFiguresReply, SurveyReply } from '@syndeton/contract';

/** Grows when what a survey says changes, so that kept ones are made anew. */
export const inventoryVersion = 9;

/** All that a survey says of one state of a site, ready to be kept and sent: replies as gzipped JSON. */
export interface Inventory {
  readonly survey: Uint8Array;
  readonly families: Uint8Array;
  readonly sheets: SurveyReply['sheets'];
  readonly figures: SiteFiguresReply;
}

export type OnPage = (done: number, total: number, rules: number) => void;

export async function makeInventory(site: Site, checker: SiteChecker, onPage?: OnPage): Promise<Inventory> {
  let rules = 0;
  const check = checker.check(site, {
    onPage: (done, total, page) => {
      rules += page.embeddedRules;
      onPage?.(done, total, rules);
    },
  });
  const survey = surveyReply(check);
  return {
    survey: await packed(survey),
    families: await packed({ families: familiesReply(check) } satisfies FamiliesReply),
    sheets: survey.sheets,
    figures: figuresOf(check),
  };
}

const pack = promisify(gzip);

const packed = async (value: unknown): Promise<Uint8Array> =>
  pack(
    JSON.stringify(value, (_key, one: unknown) => (one === undefined ? null : one)),
    { level: 3 },
  );

/** A finding without its edits: these are made again on the site as it is when it is mended. */
export const findingReply = ({
  id,
  kind,
  severity,
  sentence,
  sheet,
  pages,
  places,
  action,
}: FoundFinding): FindingReply => ({
  id,
  kind,
  severity,
  sentence,
  ...(sheet === undefined ? {} : { sheet }),
  pages: [...pages],
  places: [...places],
  action,
});

export function surveyReply({ survey, families, findings, reach }: SiteCheck): SurveyReply {
  const told = findings.map(findingReply);
  return {
    ...survey,
    findings: told,
    reach,
    drifted: driftedIn(families),
    familyPages: Object.fromEntries(families.map((f) => [f.id, f.pages.length])),
  } as unknown as SurveyReply;
}

export const familiesReply = ({ families, elementsOf }: SiteCheck): FamiliesReply['families'] =>
  families.map(({ stays, ...family }) => ({
    ...family,
    groups: [...family.groups],
    pages: [...family.pages],
    twins: [...family.twins],
    elements: elementsOf(family.id) ?? null,
    versions: family.versions.map((v) => ({ ...v, pages: [...v.pages], declarations: [...v.declarations] })),
    drifted: [...driftedProperties({ ...family, stays })],
    ...(stays === undefined ? {} : { stays: describeStayReason(stays) }),
  }));

const driftedIn = (families: SiteCheck['families']): number => families.filter((f) => f.versions.length > 1).length;

function figuresOf({ survey, families, findings }: SiteCheck): SiteFiguresReply {
  const found = (kinds: RegExp): number => findings.filter((f) => kinds.test(f.kind)).length;
  const sum = (kind: string): number =>
    survey.pages.reduce(
      (total, page) => total + page.sources.filter((s) => s.kind === kind).reduce((n, s) => n + s.bytes, 0),
      0,
    );
  return {
    pages: survey.pages.length,
    sheets: survey.sheets.length,
    otherFiles: survey.otherFiles,
    embeddedRules: survey.pages.reduce((n, p) => n + p.embeddedRules, 0),
    styleAttributes: survey.pages.reduce((n, p) => n + p.styleAttributes, 0),
    sharedBytes: survey.sheets.filter((s) => s.pages.length > 0).reduce((n, s) => n + s.bytes, 0),
    embeddedBytes: sum('embedded'),
    attributeBytes: sum('attribute'),
    presentationalBytes: sum('presentational'),
    waiting: {
      drifted: driftedIn(families),
      links: found(/^(link-|page-without-link|sheet-order|baseline-last|rule-not-reached|empty-sheet)/),
      overrides: found(/^override$/),
      findings: findings.filter((f) => f.severity !== 'note').length,
    },
  };
}
