import type { AttributeGroupReply, AttributeGroupsReply } from '@syndeton/contract';

import { CopiesStrip } from '../../ui/CopiesStrip.tsx';
import { count, someNames } from '../../ui/format.ts';
import { Mark } from '../../ui/Mark.tsx';
import { summaryOf } from '../../ui/summaryOf.ts';
import { coloursIn, Swatch } from '../../ui/Swatch.tsx';
import { Tick } from '../../ui/Tick.tsx';
import { NameField } from './NameField.tsx';

interface Props {
  readonly groups: readonly AttributeGroupReply[];
  /** Whether they are there yet; else why they cannot be read. */
  readonly state: 'reading' | 'there' | (string & {});
  readonly left: AttributeGroupsReply['left'];
  readonly pages: readonly string[];
  readonly chosen: ReadonlySet<string>;
  readonly names: Readonly<Record<string, string>>;
  /** The sheet a group goes to, when the draft has one. */
  readonly goesTo: (key: string) => string | undefined;
  readonly onChoose: (keys: readonly string[], on: boolean) => void;
  /** Says what is wrong with a name, or takes it. */
  readonly onName: (key: string, name: string) => string | undefined;
}

const mostRows = 300;

/** Style attributes that say the same, each with the class it would become; the name can be changed. */
export function AttributesTable({ groups, state, left, pages, chosen, names, goesTo, onChoose, onName }: Props) {
  const rows = groups.slice(0, mostRows);
  if (state === 'reading')
    return (
      <p role="status" className="py-3 text-table">
        Reading the style attributes of {count(pages.length, 'page')} …
      </p>
    );
  if (state !== 'there')
    return (
      <p role="alert" className="py-3 text-table text-error">
        {state}
      </p>
    );
  const all = rows.length > 0 && rows.every((group) => chosen.has(group.key));
  return (
    <>
      <table className="ft">
        <caption className="sr-only">Style attributes that say the same</caption>
        <colgroup>
          <col style={{ width: 26 }} />
          <col style={{ width: '24%' }} />
          <col style={{ width: '15%' }} />
          <col style={{ width: 164 }} />
          <col />
          <col style={{ width: 144 }} />
        </colgroup>
        <thead>
          <tr>
            <th>
              <Tick
                checked={all}
                onChange={(on) =>
                  onChoose(
                    rows.map((group) => group.key),
                    on,
                  )
                }
                label="Choose all groups shown"
              />
            </th>
            <th>Class, or names there</th>
            <th>On elements</th>
            <th>Of {pages.length} pages</th>
            <th>What it does</th>
            <th>Goes to</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((group) => (
            <tr key={group.key}>
              <td>
                <Tick
                  checked={chosen.has(group.key)}
                  onChange={(on) => onChoose([group.key], on)}
                  label={`Choose ${group.name}`}
                />
              </td>
              <td>
                <NameField
                  name={names[group.key] ?? group.name}
                  label={`Class name, proposed ${group.name}`}
                  onName={(name) => onName(group.key, name)}
                  isGiven={names[group.key] !== undefined}
                />
              </td>
              <td title={group.tags.join(', ')}>
                {group.elements} <span className="text-note text-ink-3 m">{group.tags.slice(0, 3).join(', ')}</span>
              </td>
              <td title={someNames(group.pages, 8)}>
                <span className="flex items-center gap-2">
                  <CopiesStrip pages={pages} versions={[group]} /> {group.pages.length}
                </span>
              </td>
              <td className="does" title={group.declarations.map((d) => `${d.property}: ${d.value}`).join('; ')}>
                {[...new Set(group.declarations.flatMap((d) => coloursIn(d.value)))].slice(0, 3).map((colour) => (
                  <Swatch key={colour} colour={colour} />
                ))}{' '}
                {summaryOf(group.declarations)}
              </td>
              <td>
                {goesTo(group.key) === undefined ? (
                  <span className="text-note text-ink-3">undecided</span>
                ) : (
                  <>
                    <Mark kind="linked" hidden /> <span className="m">{goesTo(group.key)!.replace(/^.*\//, '')}</span>
                  </>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {groups.length > mostRows && (
        <p className="text-note text-ink-3 py-2">and {groups.length - mostRows} more; choose pages to see them</p>
      )}
      {left.length > 0 && (
        <div className="py-3 text-table">
          <h2 className="text-body!">These stay on their elements</h2>
          {left.map(({ reason, elements, pages: on }) => (
            <p key={reason}>
              <b>{count(elements, 'attribute')}</b> on {someNames(on)}: {reason}.
            </p>
          ))}
        </div>
      )}
    </>
  );
}
