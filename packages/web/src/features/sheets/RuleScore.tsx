import type { RuleScoreReply } from '@syndeton/contract';
import { Act } from '../../ui/Act.tsx';
import { Coded } from '../../ui/Coded.tsx';
import { Mark } from '../../ui/Mark.tsx';
import { beaterReason, beaterWords, type Beater } from './beaterWords.ts';

/** What can be done about a beater. */
export interface BeaterAct {
  readonly label: string;
  readonly does: () => void;
}

interface Props {
  readonly score: RuleScoreReply;
  /** The pages of the sheet, in rail order. */
  readonly pages: readonly string[];
  /** Properties that the edit in hand changes. */
  readonly changed: readonly string[];
  readonly onBeater: (beater: Beater) => void;
  readonly actsOf: (beater: Beater) => readonly BeaterAct[];
}

const headLook = 'border-b border-line-2 pb-0.75 text-left text-note font-normal text-ink-3';
const cellLook = 'h-6.25 pt-0.5 align-middle';

/** Declarations down, pages across: solid wins, hollow loses; below, who beats what. */
export function RuleScore({ score, pages, changed, onBeater, actsOf }: Props) {
  return (
    <>
      <table className="w-full table-fixed border-collapse text-table [&_tr>:first-child]:pl-2">
        <thead>
          <tr>
            <th scope="col" className={`${headLook} w-[34%]`}>
              What it says
            </th>
            <th scope="col" className={`${headLook} max-[1199px]:hidden`}>
              <span className="sr-only">on each page</span>
            </th>
            <th scope="col" className={`${headLook} w-10 pr-1.5 text-right!`}>
              wins
            </th>
            <th scope="col" className={`${headLook} w-10 pr-1.5 text-right!`}>
              loses
            </th>
          </tr>
        </thead>
        <tbody>
          {score.declarations.map((one) => (
            <tr key={one.start} className={changed.includes(one.property) ? 'bg-lit' : ''}>
              <th scope="row" className={`${cellLook} m truncate text-left font-normal`}>
                {one.property}
              </th>
              <td className={`${cellLook} max-[1199px]:hidden`}>
                <Stave pages={pages} counts={one.pages} />
              </td>
              <td className={`${cellLook} pr-1.5 text-right`}>
                <b>{one.wins}</b>
              </td>
              <td className={`${cellLook} pr-1.5 text-right`}>{one.loses}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {score.beaters.length > 0 && (
        <ul
          className="mt-1.75 pb-2.5 pl-2 text-table/5 text-ink-2 [&_button]:text-left [&_code]:text-ink"
          aria-label="What beats it"
        >
          {score.beaters.slice(0, 6).map((beater, i) => (
            <li key={i} className="flex gap-1.75 [&>svg]:mt-1">
              <Mark kind={beater.kind} />
              <span>
                <button type="button" className="hover:underline" onClick={() => onBeater(beater)}>
                  <Coded text={beaterWords(beater)} />
                </button>{' '}
                <span className="text-ink-3">{beaterReason(beater)}</span>{' '}
                {actsOf(beater).map(({ label, does }) => (
                  <Act key={label} className="mr-3" onClick={does}>
                    {label}
                  </Act>
                ))}
              </span>
            </li>
          ))}
          {score.beaters.length > 6 && <li className="text-note text-ink-3">and {score.beaters.length - 6} more</li>}
        </ul>
      )}
    </>
  );
}

const width = 231;
const height = 18;

/** One tick a page, its height its elements; over 120 pages neighbours are one. */
function Stave({
  pages,
  counts,
}: {
  readonly pages: readonly string[];
  readonly counts: RuleScoreReply['declarations'][number]['pages'];
}) {
  const per = Math.ceil(pages.length / 120);
  const bins = Array.from({ length: Math.ceil(pages.length / Math.max(per, 1)) }, () => ({ wins: 0, loses: 0 }));
  const place = new Map(pages.map((page, i) => [page, Math.floor(i / per)]));
  for (const { path, wins, loses } of counts) {
    const bin = bins[place.get(path) ?? -1];
    if (!bin) continue;
    bin.wins += wins;
    bin.loses += loses;
  }
  const most = Math.max(1, ...bins.map(({ wins, loses }) => wins + loses));
  const step = Math.min(7.2, width / Math.max(bins.length, 1));
  const tick = Math.max(1, step - 2.3);
  const tall = (n: number): number => (n === 0 ? 0 : 3 + (n / most) * (height - 4));
  return (
    <svg
      className="block"
      viewBox={`0 0 ${width} ${height + 1}`}
      width="100%"
      height="19"
      aria-hidden="true"
      preserveAspectRatio="none"
    >
      {bins.map(({ wins, loses }, i) => {
        const all = tall(wins + loses);
        const solid = wins === 0 ? 0 : Math.max(2, (all * wins) / (wins + loses));
        return (
          <g key={i}>
            {loses > 0 && (
              <rect
                className="fill-panel stroke-area-linked stroke-[1.3]"
                x={i * step + 0.5}
                y={height - all + 0.5}
                width={tick - 1}
                height={Math.max(all - 1, 1)}
              />
            )}
            {wins > 0 && (
              <rect className="fill-area-linked" x={i * step} y={height - solid} width={tick} height={solid} />
            )}
          </g>
        );
      })}
      <path className="stroke-line-2" d={`M0 ${height + 0.5}H${width}`} />
    </svg>
  );
}
