import { siteWinners, type Environment } from '@syndeton/core';
import picomatch from 'picomatch';
import { readSiteFolder, UsageProblem } from './siteFolder.ts';

export interface PrecedenceOptions {
  readonly winners?: boolean;
  readonly page?: string;
  readonly medium: string;
  readonly width: string;
}

/** `syndeton precedence DIR --winners`: one JSON line for each element and longhand that an author source declares. */
export async function runPrecedence(
  folder: string,
  options: PrecedenceOptions,
  print: (text: string) => void,
): Promise<number> {
  if (!options.winners) throw new UsageProblem('Say what to print: --winners.');
  const environment = readEnvironment(options);
  const matches = options.page === undefined ? () => true : picomatch(options.page);
  const site = await readSiteFolder(folder);
  let pages = 0;
  for (const lines of siteWinners(site, { environment }, matches)) {
    pages++;
    if (lines.length > 0) print(lines.map((line) => JSON.stringify(line)).join('\n'));
  }
  if (pages === 0)
    throw new UsageProblem(
      options.page === undefined
        ? `${folder} holds no page that can be read.`
        : `No page of ${folder} matches ${options.page}. Name a page from the site's top folder, such as index.html, or a pattern such as "**/*.html".`,
    );
  return 0;
}

function readEnvironment({ medium, width }: PrecedenceOptions): Environment {
  if (medium !== 'screen' && medium !== 'print')
    throw new UsageProblem(`There is no medium ${medium} here. Allowed: screen, print.`);
  const pixels = Number(width);
  if (!Number.isInteger(pixels) || pixels < 1 || pixels > 100_000)
    throw new UsageProblem(`${width} is no width. Give whole CSS pixels from 1 to 100000, such as 1280.`);
  return { medium, width: pixels, height: 800 };
}
