import { stationNames, stationTitle, type SiteView } from '../site/index.ts';

/** What a site's address names that is not there, in a sentence, with the way back; undefined when all is. */
export function unknownAddress(
  { siteId, given, station, opened, pages, site }: SiteView,
  sheets: readonly string[],
): { readonly what: string; readonly to: string; readonly way: string } | undefined {
  const at = (name: string): string => `/sites/${siteId}/${name}`;
  if (!stationNames.some((name) => name === given)) {
    const known = stationNames.map((name) => stationTitle[name]).join(', ');
    return {
      what: `There is no station “${given}”. The stations are ${known}.`,
      to: at('survey'),
      way: 'To the survey',
    };
  }
  if (opened === undefined || !site) return undefined;
  const now = `r${site.revision} or the draft`;
  if (station === 'sheets' && !sheets.includes(opened))
    return { what: `There is no sheet ${opened} in ${now}.`, to: at(station), way: 'All sheets' };
  const isPage = /^(survey|proof|precedence)$/.test(station);
  return isPage && !pages.includes(opened)
    ? { what: `There is no page ${opened} in ${now}.`, to: at(station), way: 'All pages' }
    : undefined;
}
