import { HtmlValidate, StaticConfigLoader } from 'html-validate/browser';
import { pagesOf, type Site, type SiteFile } from '../source/site.ts';
import { LineIndex } from '../source/span.ts';
import { withoutCode } from '../source/templates.ts';
import type { FoundFinding } from './finding.ts';
import { FindingGroups } from './findingGroup.ts';
import { markupEdits, markupMend, type MarkupMessage } from './markupMends.ts';
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
 * What a validator says of the pages' markup, one finding for each thing it says, with a mend where that leaves what browsers build. It
 * reads a page in a few dozen milliseconds: for whole sites it is asked apart from all other checks. `only`: these pages.
 */
export function markupFindings(
  site: Site,
  onPage: (done: number, total: number) => void = () => undefined,
  only?: ReadonlySet<string>,
): readonly FoundFinding[] {
  const validator = new HtmlValidate(new StaticConfigLoader({ root: true, elements: ['html5', oldElements], rules }));
  const groups = new FindingGroups();
  const acts = new Map<string, string>();
  const pages = pagesOf(site).filter(({ path }) => only?.has(path) ?? true);
  pages.forEach((file, i) => {
    if (file.text !== undefined) {
      const lines = new LineIndex(file.text);
      for (const [subject, messages] of saidOf(file, file.text, validator)) {
        const group = groups.about(subject).page(file.path).at({ path: file.path, lines }, messages[0]!.offset);
        const act = markupMend(messages[0]!);
        const edits = act === undefined ? [] : markupEdits(file.text, messages, file.isRun);
        if (edits.length > 0) {
          group.mend(file.path, ...edits);
          acts.set(subject, act!);
        }
      }
    }
    onPage(i + 1, pages.length);
  });
  return groups.all.map((group) => {
    const act = acts.get(group.subject);
    const labels = { look: 'See it', ...(act === undefined ? {} : { mend: act }) };
    return group.finding('page-markup', `${pagesInWords(group.pages)}: ${group.subject}`, labels);
  });
}

/** By what is said, in order of first appearance. */
function saidOf(file: SiteFile, text: string, validator: HtmlValidate): ReadonlyMap<string, readonly MarkupMessage[]> {
  const out = new Map<string, MarkupMessage[]>();
  const read = file.isRun ? withoutCode(text) : text;
  const said = validator.validateStringSync(read, file.path).results.flatMap((one) => one.messages);
  for (const { ruleId, message, offset } of said) {
    const subject = asCode(message);
    out.set(subject, [...(out.get(subject) ?? []), { rule: ruleId, message, offset }]);
  }
  return out;
}

/** Tags and names between backticks, as findings write them. */
const asCode = (message: string): string =>
  message.replace(
    /<(\/?[\w-]+)>|"([^"]+)"/g,
    (whole, tag: string | undefined, name: string) => `\`${tag === undefined ? name : whole}\``,
  );
