import { holdingSentence, plainSentence, type Checked } from './checked.ts';

/**
 * The findings as JUnit XML: one test case a finding; those of less weight are skipped ones. Build servers read this form; it
 * has no standard, the elements and attributes here are common practice.
 */
export function printJUnit({ findings, holding, fails }: Checked): string {
  const cases = [
    ...findings.map((finding) => {
      const { path, line } = finding.places[0] ?? { path: '', line: 1 };
      const text = plainSentence(finding);
      const inside = fails(finding)
        ? `<failure type="${escape(finding.kind)}" message="${escape(text)}">${escape(finding.places.map((p) => `${p.path}:${p.line}:${p.column}`).join('\n'))}</failure>`
        : `<skipped message="${escape(text)}"/>`;
      return `    <testcase classname="${escape(path)}" name="${escape(`${finding.kind}: ${text}`)}" file="${escape(path)}" line="${line}">${inside}</testcase>`;
    }),
    ...holding.map(
      (page) =>
        `    <testcase classname="${escape(page.page)}" name="holds-styling" file="${escape(page.page)}" line="1"><failure type="holds-styling" message="${escape(holdingSentence(page))}"/></testcase>`,
    ),
  ];
  if (cases.length === 0) cases.push('    <testcase classname="site" name="nothing to object"/>');
  const failures = findings.filter(fails).length + holding.length;
  const counts = `tests="${cases.length}" failures="${failures}" skipped="${findings.length - findings.filter(fails).length}"`;
  return `<?xml version="1.0" encoding="UTF-8"?>\n<testsuites ${counts}>\n  <testsuite name="syndeton check" ${counts}>\n${cases.join('\n')}\n  </testsuite>\n</testsuites>`;
}

/** XML 1.0, "Characters" and "Predefined Entities". */
const escape = (text: string): string =>
  text
    // oxlint-disable-next-line no-control-regex -- XML allows no others
    .replace(/[\x00-\x08\x0b\x0c\x0e-\x1f\ufffe\uffff]/g, '\ufffd')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;')
    .replaceAll('\n', '&#10;');
