import { freeSheetName } from '@syndeton/core';

export const isInFolder = (path: string, folder: string): boolean =>
  path.slice(0, path.lastIndexOf('/') + 1).replace(/\/$/, '') === folder.replace(/^\/+|\/+$/g, '');

type WithSheets = { readonly sheets: readonly { readonly path: string }[] };
const pathsIn = ({ sheets }: WithSheets): readonly string[] => sheets.map(({ path }) => path);

/** A name that no sheet has yet. */
export const proposedName = (site: WithSheets, folder: string): string => freeSheetName(pathsIn(site), folder);

/** A sheet for what a page alone says, by the name of the page where no sheet has it. */
export function ownSheetName(site: WithSheets, folder: string, page: string): string {
  const free = freeSheetName(pathsIn(site), folder);
  const name = free.replace(/[^/]*$/, `${page.replace(/^.*\//, '').replace(/\.\w+$/, '')}.css`);
  return pathsIn(site).includes(name) ? free : name;
}
