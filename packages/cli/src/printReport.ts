import {
  describeSeverity,
  describeStayReason,
  describeTakenAsNothing,
  driftedProperties,
  type Proof,
  type SiteCheck,
} from '@syndeton/core';

export const plural = (n: number, word: string, many = `${word}s`): string =>
  `${n.toLocaleString('en')} ${n === 1 ? word : many}`;

/** The whole survey as JSON: the contract's WholeSurvey, with null where core has undefined. */
export function printWholeSurvey({ survey, families, elementsOf, findings, reach }: SiteCheck): string {
  const told = findings.map(({ id, kind, severity, sentence, pages, places, action }) => ({
    id,
    kind,
    severity,
    sentence,
    pages,
    places,
    action,
  }));
  const grouped = families.map(({ stays, ...family }) => ({
    ...family,
    elements: elementsOf(family.id) ?? null,
    drifted: driftedProperties({ ...family, stays }),
    ...(stays === undefined ? {} : { stays: describeStayReason(stays) }),
  }));
  const whole = {
    ...survey,
    findings: told,
    reach,
    drifted: families.filter((f) => f.versions.length > 1).length,
    familyPages: Object.fromEntries(families.map((f) => [f.id, f.pages.length])),
    families: grouped,
  };
  return JSON.stringify(whole, (_key, value: unknown) => (value === undefined ? null : value), 2);
}

/** The survey as a table for a terminal. */
export function printSurvey({ survey, findings }: SiteCheck): string {
  const lines: string[] = [];
  const width = Math.max(4, ...survey.pages.map((page) => page.path.length));
  lines.push(`${'page'.padEnd(width)}  shared B  in page B  blocks  rules  style=  sources`);
  for (const page of survey.pages) {
    const blocks = page.sources.filter((s) => s.kind === 'embedded').length;
    const sources = page.sources.map(
      (s) =>
        `${s.kind}${s.target === undefined ? '' : ` ${s.target}`}${s.problem === undefined ? '' : ` (${s.problem})`}`,
    );
    const cells = [page.sharedBytes, page.localBytes, blocks, page.embeddedRules, page.styleAttributes];
    const widths = [8, 9, 6, 5, 6];
    lines.push(
      `${page.path.padEnd(width)}  ${cells.map((c, i) => String(c).padStart(widths[i]!)).join('  ')}  ${page.opaque ? 'cannot be read' : sources.join(', ')}`,
    );
  }
  lines.push(
    '',
    `${plural(survey.pages.length, 'page')}, ${plural(survey.sheets.length, 'sheet')}, ${plural(survey.otherFiles, 'other file')}.`,
  );
  lines.push(`${survey.repeatedBytes.toLocaleString('en')} bytes of embedded blocks are copies of another.`);
  for (const block of survey.repeatedBlocks.slice(0, 20)) {
    const names = block.selectors.slice(0, 3).join(', ') + (block.selectors.length > 3 ? ', …' : '');
    const versions = block.versions.length === 1 ? 'identical' : plural(block.versions.length, 'version');
    lines.push(`  on ${plural(block.pages.length, 'page')}, ${versions}: ${names}`);
  }
  for (const severity of ['breaks', 'wrong', 'note'] as const) {
    const own = findings.filter((f) => f.severity === severity);
    if (own.length > 0) lines.push('', `${describeSeverity(severity)} (${own.length})`);
    for (const { sentence, places } of own)
      lines.push(`  ${sentence.replaceAll('`', '')}  (${places[0]?.path ?? ''}:${places[0]?.line ?? 1})`);
  }
  return lines.join('\n');
}

/** The proof in words: the verdict, then each page that differs with its causes. */
export function printProof(proof: Proof, absent: readonly string[] = []): string {
  const same = proof.pages.filter((page) => page.verdict === 'same').length;
  const unsure = proof.pages.filter((page) => page.verdict === 'unsure').length;
  const lines = [
    `${same} of ${plural(proof.pages.length, 'page')} look the same (${plural(proof.elements, 'element')} compared on the pages the change can reach).`,
    `Taken as given: scripts and sheets that are not in the folder change nothing; pages are sent as HTML (.xhtml as XML) and compared as they are once loaded, and what a server writes into one does not hang on its sheets.${absent.length === 0 ? '' : ` Of sheets that are not here: ${describeTakenAsNothing(absent)}.`}`,
    ...(unsure > 0
      ? [`Of ${plural(unsure, 'page')} it cannot be told: looking at both states in a browser settles it.`]
      : []),
  ];
  for (const page of proof.pages.filter((p) => p.verdict !== 'same')) {
    lines.push(
      '',
      `${page.path}: ${page.verdict === 'unsure' ? 'cannot be told' : page.verdict}${page.differingElements > 0 ? `, ${plural(page.differingElements, 'element')}` : ''}`,
    );
    for (const note of page.notes) lines.push(`  ${note}`);
    for (const { sentence, elements } of page.doubts)
      lines.push(
        `  ${sentence}${
          elements.length > 0
            ? ` (${elements
                .slice(0, 3)
                .map(({ name, line }) => `${name}, line ${line}`)
                .join('; ')}${elements.length > 3 ? '; …' : ''})`
            : ''
        }`,
      );
    for (const cause of page.causes.slice(0, 12)) {
      const value = (side: typeof cause.before): string =>
        side ? `${side.value}${side.important ? ' !important' : ''}` : 'not set';
      const first = cause.elements[0]!;
      const more = cause.elements.length > 1 ? ` and ${cause.elements.length - 1} more` : '';
      lines.push(
        `  ${first.name}${cause.pseudoElement} (line ${first.line})${more}  ${cause.property}: ${value(cause.before)} → ${value(cause.after)}`,
      );
      lines.push(`    ${cause.reason}`);
    }
    if (page.causes.length > 12) lines.push(`  and ${page.causes.length - 12} more causes`);
  }
  return lines.join('\n');
}
