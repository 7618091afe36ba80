import type { FamilyReply } from '@syndeton/contract';
import { comparableValue } from '@syndeton/core';
import { someNames } from '../../ui/format.ts';
import { coloursIn, Swatch } from '../../ui/Swatch.tsx';
import { Tick } from '../../ui/Tick.tsx';
import { StyleSample } from './StyleSample.tsx';

interface Props {
  readonly family: FamilyReply;
  readonly chosen: ReadonlySet<string>;
  readonly onChoose: (versions: readonly string[], on: boolean) => void;
}

const mostVersions = 6;

/** A family's versions side by side: a rendered sample, properties down, cells that differ lit, the pages, what goes to the sheet. */
export function VersionsTable({ family, chosen, onChoose }: Props) {
  const versions = family.versions.slice(0, mostVersions);
  const properties = [...new Set(versions.flatMap((version) => version.declarations.map((d) => d.property)))];
  const letter = (i: number): string => String.fromCharCode(65 + i);
  return (
    <table className="vt">
      <caption className="hidden-table">Versions of {family.label}</caption>
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
            return (
              <td key={version.id}>
                <label className="flex items-center gap-2">
                  <Tick
                    checked={chosen.has(key)}
                    onChange={(on) => onChoose([key], on)}
                    label={`Send version ${letter(i)} to a sheet`}
                  />
                  {chosen.has(key)
                    ? 'goes to a sheet'
                    : version.pages.length === 1
                      ? 'stays on this page'
                      : `stays on these ${version.pages.length} pages`}
                </label>
              </td>
            );
          })}
        </tr>
      </tbody>
    </table>
  );
}
