import type { Command } from 'commander';
import { checkSite, markupFindings, stillHolding, type Finding, type Severity } from '@syndeton/core';
import type { CheckReportReply } from '@syndeton/contract';
import { holdingSentence, plainSentence, type Checked } from '../checked.ts';
import { plural } from '../printReport.ts';
import { printJUnit } from '../printJUnit.ts';
import { printSarif } from '../printSarif.ts';
import { UsageProblem } from '../siteFolder.ts';
import type { Session } from './session.ts';

export interface CheckOptions {
  readonly failOn: string;
  readonly json?: boolean;
  readonly format?: string;
  /** Asks a validator about every page's markup: always, never, or up to 500 pages when absent. */
  readonly markup?: boolean;
}

const failing: Readonly<Record<string, readonly Severity[]>> = {
  breaks: ['breaks'],
  wrong: ['breaks', 'wrong'],
  any: ['breaks', 'wrong', 'note'],
};
/** A validator takes a few dozen milliseconds a page. */
const mostAsked = 500;
const formats = ['text', 'json', 'junit', 'sarif'];

/** `syndeton check`: 1 when a page lacks a link it should have, holds styling gathered before, or has a finding that counts. */
export async function runCheck(folder: string, options: CheckOptions, session: Session): Promise<number> {
  const { print } = session;
  const severities = failing[options.failOn];
  if (!severities)
    throw new UsageProblem(`--fail-on ${options.failOn} is not known. breaks, wrong and any are allowed.`);
  const format = options.format ?? (options.json ? 'json' : 'text');
  if (!formats.includes(format))
    throw new UsageProblem(`--format ${format} is not known. text, json, junit and sarif are allowed.`);
  const site = await session.site(folder);
  const { survey, findings: own } = checkSite(site);
  const isAsked = options.markup ?? survey.pages.length <= mostAsked;
  const findings = isAsked ? [...own, ...markupFindings(site)] : own;
  const holding = stillHolding(site, survey);
  const fails = ({ kind, severity }: Finding): boolean =>
    severities.includes(severity) || kind === 'page-without-link' || kind === 'rule-not-reached';
  const checked: Checked = { pages: survey.pages.length, findings, holding, fails };
  const failed = holding.length > 0 || findings.some(fails);
  if (format === 'json') print(JSON.stringify(report(checked, failed, options.failOn), null, 2));
  else if (format === 'junit') print(printJUnit(checked));
  else if (format === 'sarif') print(printSarif(checked));
  else print(printText(checked, failed));
  return failed ? 1 : 0;
}

function report({ pages, findings, holding }: Checked, failed: boolean, failOn: string): CheckReportReply {
  const plain = findings.map(({ id, kind, severity, sentence, pages: on, places, action }) => ({
    id,
    kind,
    severity,
    sentence,
    pages: on,
    places,
    action,
  }));
  return { failed, failOn, pages, stillHolding: holding, findings: plain } as unknown as CheckReportReply;
}

function printText(checked: Checked, failed: boolean): string {
  const lines: string[] = [];
  const counting = checked.findings.filter(checked.fails);
  for (const finding of counting) {
    const { path, line } = finding.places[0] ?? { path: '', line: 1 };
    lines.push(`${path}:${line}: ${finding.kind}: ${plainSentence(finding)}`);
  }
  for (const page of checked.holding) lines.push(`${page.page}:1: holds-styling: ${holdingSentence(page)}`);
  const rest = checked.findings.length - counting.length;
  const others = rest > 0 ? ` ${plural(rest, 'other finding')} of less weight.` : '';
  const told = plural(counting.length + checked.holding.length, 'finding');
  lines.push(
    failed
      ? `${told} on ${plural(checked.pages, 'page')}.${others}`
      : `${plural(checked.pages, 'page')}, nothing to object.${others}`,
  );
  return lines.join('\n');
}

/** Adds `syndeton check` to the program. */
export function addCheck(program: Command, session: Session): void {
  const { end } = session;
  program
    .command('check <dir>')
    .description(
      'for a build server: 1 when a page lacks a link, holds styling gathered before, or has a finding that counts',
    )
    .option('--fail-on <severity>', 'breaks, wrong or any', 'breaks')
    .option('--json', 'as JSON')
    .option('--format <format>', 'text, json, junit or sarif')
    .option('--markup', "asks a validator about every page's markup, also of large sites")
    .option('--no-markup', 'asks no validator')
    .action(async (dir: string, options: CheckOptions) => {
      end(await runCheck(dir, options, session));
    });
}
