import type { FamilyReply, OperationBody } from '@syndeton/contract';
import { comparableValue } from '@syndeton/core';
import { someNames } from '../../ui/format.ts';
import { coloursIn, Swatch } from '../../ui/Swatch.tsx';
import { Choice } from '../../ui/Choice.tsx';
import { Tick } from '../../ui/Tick.tsx';
import { becomesOf, letterOf, optionsFor, sayDecisions, type Becomes } from './becomes.ts';
import { decisionsOf } from './decisions.ts';
import { StyleSample } from '../../ui/StyleSample.tsx';

interface Props {
  readonly family: FamilyReply;
  readonly chosen: ReadonlySet<string>;
  readonly onChoose: (versions: readonly string[], on: boolean) => void;
  readonly operations: readonly OperationBody[];
  readonly onSettle: (version: FamilyReply['versions'][number], becomes: Becomes) => void;
}

const mostVersions = 6;

/** A family's versions side by side: a rendered sample, properties down, cells that differ lit, the pages, what goes to the sheet. */
export function VersionsTable({ family, chosen, onChoose, operations, onSettle }: Props) {
  const versions = family.versions.slice(0, mostVersions);
  const properties = [...new Set(versions.flatMap((version) => version.declarations.map((d) => d.property)))];
  const letter = letterOf;
  const planned = operations.some((operation) => operation.kind === 'gather-sheet');
  return (
    <table className="vt">
      <caption className="sr-only">Versions of {family.label}</caption>
      <thead>
        <tr className="hd">
          <td style={{ width: 150 }} />
          {versions.map((version, i) => (
            <th key={version.id} scope="col">
              <b>{letter(i)}</b> {version.pages.length === 1 ? '1 page' : `${version.pages.length} pages`}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {family.kind === 'rule' && (
          <tr className="smp">
            <th scope="row">looks like</th>
            {versions.map((version) => (
              <td key={version.id}>
                <StyleSample declarations={version.declarations} />
              </td>
            ))}
          </tr>
        )}
        {properties.map((property) => {
          const drifted = family.drifted.includes(property);
          return (
            <tr key={property}>
              <th scope="row" className="m">
                {property}
              </th>
              {versions.map((version) => {
                const found = version.declarations.findLast((d) => d.property === property);
                if (!found)
                  return (
                    <td key={version.id} className={`unset${drifted ? ' lit' : ''}`}>
                      not set
                    </td>
                  );
                const first = versions[0]!.declarations.findLast((d) => d.property === property);
                const lit =
                  drifted &&
                  (!first || comparableValue(property, first.value) !== comparableValue(property, found.value));
                return (
                  <td key={version.id} className={`m${lit ? ' lit' : ''}`} title={found.value}>
                    {coloursIn(found.value)
                      .slice(0, 1)
                      .map((colour) => (
                        <Swatch key={colour} colour={colour} />
                      ))}{' '}
                    {found.value}
                    {found.important ? ' !important' : ''}
                  </td>
                );
              })}
            </tr>
          );
        })}
        {family.kind === 'definition' && (
          <tr className="pgs">
            <th scope="row">text</th>
            {versions.map((version) => (
              <td key={version.id}>
                <code>{version.text.slice(0, 300)}</code>
              </td>
            ))}
          </tr>
        )}
        <tr className="pgs">
          <th scope="row">stands on</th>
          {versions.map((version) => (
            <td key={version.id} title={version.pages.join('\n')}>
              {someNames(version.pages)}
            </td>
          ))}
        </tr>
        <tr className="pgs">
          <th scope="row">becomes</th>
          {versions.map((version, i) => {
            const key = `${family.id}\n${version.id}`;
            const decisions = decisionsOf(operations, family, version);
            return (
              <td key={version.id}>
                <label className="flex items-center gap-2">
                  <Tick
                    checked={chosen.has(key)}
                    onChange={(on) => onChoose([key], on)}
                    label={`Choose version ${letter(i)}`}
                  />
                  {chosen.has(key) ? 'chosen, to be sent' : sayDecisions(decisions, letter, versions)}
                </label>
                {(i > 0 || decisions.every((one) => one.kind !== 'open')) && (
                  <Choice
                    label={`What becomes of version ${letter(i)}`}
                    value={becomesOf(decisions)}
                    options={optionsFor(i, family, planned)}
                    onChange={(becomes) => onSettle(version, becomes)}
                  />
                )}
              </td>
            );
          })}
        </tr>
      </tbody>
    </table>
  );
}
