import type { HandoffReport } from './report.ts';

/** The report as rows: one for each file, each page's verdict, each finding. RFC 4180, "Definition of the CSV Format". */
export function reportCsv({ files, proof, findings }: HandoffReport): string {
  const rows: (readonly (string | number)[])[] = [
    ['what', 'path', 'line', 'is', 'bytes before', 'bytes after', 'compressed before', 'compressed after', 'says'],
    ...files.map((f) => ['file', f.path, '', f.change, f.bytesBefore, f.bytesAfter, f.packedBefore, f.packedAfter, '']),
    ...proof.pages.map((p) => [
      'page',
      p.path,
      '',
      p.verdict,
      '',
      '',
      '',
      '',
      [
        ...p.causes.map((c) => `${c.property}: ${c.before?.value ?? 'nothing'} → ${c.after?.value ?? 'nothing'}`),
        ...p.notes,
        ...p.doubts.map((d) => d.sentence),
      ].join(' | '),
    ]),
    ...findings.map((f) => [
      'finding',
      f.places[0]?.path ?? '',
      f.places[0]?.line ?? '',
      f.severity,
      '',
      '',
      '',
      '',
      f.sentence.replaceAll('`', ''),
    ]),
  ];
  return rows.map((row) => row.map(cell).join(',') + '\r\n').join('');
}

/** A cell that a spreadsheet would run as a formula is told to be text. */
function cell(value: string | number): string {
  const said = typeof value === 'string' && /^[=+\-@\t\r]/.test(value) ? `'${value}` : String(value);
  return /[",\r\n]/.test(said) ? `"${said.replaceAll('"', '""')}"` : said;
}
