import { findingKinds, severityOf, type FindingPlace, type Severity } from '@syndeton/core';
import type { Location, Log, Result } from 'sarif';
import { holdingSentence, plainSentence, type Checked } from './checked.ts';

const levelOf: Readonly<Record<Severity, Result.level>> = { breaks: 'error', wrong: 'warning', note: 'note' };

/** The findings as SARIF. OASIS, "Static Analysis Results Interchange Format (SARIF) Version 2.1.0". */
export function printSarif({ findings, holding }: Checked): string {
  const rules = findingKinds.map((id) => ({ id, defaultConfiguration: { level: levelOf[severityOf[id]] } }));
  const results: Result[] = [
    ...findings.map((finding): Result => ({
      ruleId: finding.kind,
      level: levelOf[finding.severity],
      message: { text: plainSentence(finding) },
      locations: finding.places.slice(0, 1).map(location),
      relatedLocations: finding.places.slice(1).map(location),
      partialFingerprints: { finding: finding.id },
    })),
    ...holding.map((page): Result => ({
      ruleId: 'holds-styling',
      level: 'error',
      message: { text: holdingSentence(page) },
      locations: [location({ path: page.page, line: 1, column: 1 })],
    })),
  ];
  const log: Log = {
    version: '2.1.0',
    $schema: 'https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json',
    runs: [
      {
        tool: {
          driver: {
            name: 'Syndeton',
            rules: [...rules, { id: 'holds-styling', defaultConfiguration: { level: 'error' } }],
          },
        },
        columnKind: 'utf16CodeUnits',
        results,
      },
    ],
  };
  return JSON.stringify(log, null, 2);
}

/** Section "artifactLocation object": a relative reference, percent-encoded. */
const location = ({ path, line, column }: FindingPlace): Location => ({
  physicalLocation: {
    artifactLocation: { uri: path.split('/').map(encodeURIComponent).join('/') },
    region: { startLine: line, startColumn: column },
  },
});
