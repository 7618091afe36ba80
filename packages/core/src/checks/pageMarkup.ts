import { HtmlValidate, StaticConfigLoader } from 'html-validate/browser';
import { pagesOf, type Site } from '../source/site.ts';
import { LineIndex } from '../source/span.ts';
import type { Finding } from './finding.ts';
import { FindingGroups } from './findingGroup.ts';
import { pagesInWords } from './words.ts';

/** What of the markup touches styling: elements that end up elsewhere than they are written, and names that do not count. */
const rules = {
  'no-dup-attr': 'error',
  'no-unknown-elements': 'error',
  'void-content': 'error',
  'close-order': 'error',
  'element-permitted-content': 'error',
  'element-permitted-parent': 'error',
  'element-permitted-occurrences': 'error',
  'no-dup-class': 'error',
} as const;

/** Old elements stand wherever text may. HTML Standard, "Non-conforming features"; hand-written pages use them. */
const oldElements = Object.fromEntries(
  'font center big tt strike basefont nobr blink marquee acronym dir'
    .split(' ')
    .map((tag) => [tag, { flow: true, phrasing: !/^(center|dir|marquee)$/.test(tag) }]),
);

/**
 * What a validator says of the pages' markup, one finding for each thing it says. It reads a page in a few dozen milliseconds: for
 * whole sites it is asked apart from all other checks.
 */
export function markupFindings(
  site: Site,
  onPage: (done: number, total: number) => void = () => undefined,
): readonly Finding[] {
  const validator = new HtmlValidate(new StaticConfigLoader({ root: true, elements: ['html5', oldElements], rules }));
  const groups = new FindingGroups();
  const pages = pagesOf(site);
  pages.forEach((file, i) => {
    if (file.text !== undefined) {
      const lines = new LineIndex(file.text);
      const { results } = validator.validateStringSync(file.text, file.path);
      for (const { message, offset } of results.flatMap((one) => one.messages))
        groups.about(asCode(message)).page(file.path).at({ path: file.path, lines }, offset);
    }
    onPage(i + 1, pages.length);
  });
  return groups.all.map((group) => {
    const { mends: _none, ...finding } = group.finding('page-markup', `${pagesInWords(group.pages)}: ${group.subject}`, { look: 'See it' }); // prettier-ignore
    return finding;
  });
}

/** Tags and names between backticks, as findings write them. */
const asCode = (message: string): string =>
  message.replace(/<(\/?[\w-]+)>|"([^"]+)"/g, (whole, tag: string | undefined, name: string) => `\`${tag === undefined ? name : whole}\``); // prettier-ignore
