import type { ReportReply } from '@syndeton/contract';
import { leavingLook } from '../../ui/looks.ts';
import { Act } from '../../ui/Act.tsx';
import { Coded } from '../../ui/Coded.tsx';
import { count } from '../../ui/format.ts';

interface Props {
  readonly report: ReportReply;
  readonly onProof: (page: string | undefined) => void;
  readonly onPlace: (path: string, line: number) => void;
}

/** Which findings are about what leaves. */
const groups: readonly (readonly [name: string, good: string, kinds: RegExp])[] = [
  ['Links', 'all reach', /^(link-(missing|wrong-case|refused)|page-without-link|reference-missing)$/],
  [
    'Sheets',
    'valid',
    /^(brace|unclosed|markup-in-sheet|refused-selector|media-query|misplaced-rule|lost-declaration|strange-space|unknown-property|invalid-value|empty-sheet|sheet-charset)$/,
  ],
  [
    'Pages',
    'nothing found',
    /^(duplicate-id|name-with-space|quirks-page|container-missing|renamed-class|rule-not-reached)$/,
  ],
  ['File names', 'safe', /^file-name$/],
];

/** What was looked at before anything leaves: the proof, and what is still wrong, each with the way to it. */
export function CheckedRows({ report, onProof, onPlace }: Props) {
  const { proof, findings, links } = report;
  const all = proof.same + proof.pages.length;
  const first = ['differs', 'unsure', 'intended'].flatMap(
    (verdict) => proof.pages.find((page) => page.verdict === verdict) ?? [],
  )[0];
  const of = (verdict: string): number => proof.pages.filter((page) => page.verdict === verdict).length;
  const others = [
    of('intended') > 0 ? `${of('intended')} as chosen` : '',
    of('unsure') > 0 ? `of ${of('unsure')} it cannot be told` : '',
    of('differs') > 0 ? `${of('differs')} different` : '',
  ].filter((words) => words !== '');
  return (
    <>
      <h2 className="mb-1.5">Checked just now</h2>
      <table className={`${leavingLook} [&_td:nth-child(2)]:whitespace-nowrap [&_td:nth-child(4)]:whitespace-nowrap`}>
        <tbody>
          <tr>
            <td>Proof</td>
            <td className={of('differs') > 0 ? 'font-medium text-error' : 'font-bold'}>
              {proof.verdict === 'same'
                ? 'same'
                : proof.verdict === 'intended'
                  ? 'as chosen'
                  : proof.verdict === 'unsure'
                    ? 'open'
                    : 'different'}
            </td>
            <td className="text-ink-2">
              {proof.same} of {count(all, 'page')} look the same{others.length > 0 ? `; ${others.join(', ')}` : ''}
            </td>
            <td>{first && <Act onClick={() => onProof(first.path)}>Look at it</Act>}</td>
          </tr>
          {groups.map(([name, good, kinds]) => {
            const found = findings.filter(({ kind }) => kinds.test(kind));
            const [worst] = found;
            const place = worst?.places[0];
            return (
              <tr key={name}>
                <td>{name}</td>
                <td
                  className={found.some(({ severity }) => severity !== 'note') ? 'font-medium text-error' : 'font-bold'}
                >
                  {worst ? `${found.length} to mend` : good}
                </td>
                <td className="text-ink-2">
                  {worst ? <Coded text={worst.sentence} /> : name === 'Links' ? count(links.links, 'link') : ''}
                  {found.length > 1 && `, and ${found.length - 1} more`}
                </td>
                <td>
                  {place && (
                    <Act
                      aria-label={`Show ${name.toLowerCase()}: ${place.path}, line ${place.line}`}
                      onClick={() => onPlace(place.path, place.line)}
                    >
                      Show it
                    </Act>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}
