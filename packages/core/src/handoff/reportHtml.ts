import type { PageProof } from '../proof/proof.ts';
import type { PageWeight } from './pageWeight.ts';
import type { HandoffReport } from './report.ts';

const style = `
:root { color-scheme: light; font: 15px/1.5 "Atkinson Hyperlegible Next", system-ui, sans-serif; color: #1e2a30; }
body { max-width: 60rem; margin: 2rem auto; padding: 0 1.5rem; }
h1 { font-size: 1.5rem; line-height: 1.3; margin: 0 0 .25rem; }
h2 { font-size: 1.1rem; margin: 2rem 0 .5rem; break-after: avoid; }
p, ul, ol { margin: .35rem 0; }
table { border-collapse: collapse; width: 100%; font-size: .87rem; }
th, td { text-align: left; vertical-align: top; padding: .3rem .6rem .3rem 0; border-bottom: 1px solid #cfd6d6; }
td.n, th.n { text-align: right; white-space: nowrap; font-variant-numeric: tabular-nums; }
code { font: .92em "Atkinson Hyperlegible Mono", ui-monospace, monospace; overflow-wrap: anywhere; }
.note { color: #5a666b; font-size: .87rem; }
.bad { color: #a3142b; font-weight: 600; }
tr, li { break-inside: avoid; }
@media print { body { margin: 0; max-width: none; padding: 0; } a { color: inherit; text-decoration: none; } }
@page { margin: 18mm; }
`;

/** The report as one page that needs nothing else, and prints well. Names and values of a site never become markup. */
export function reportHtml(report: HandoffReport): string {
  const { title, from, to, proof, files, findings, links, revisions, weight } = report;
  const all = proof.same + proof.pages.length;
  return `<!DOCTYPE html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>${text(title)}: ${text(from)} to ${text(to)}</title>
<style>${style}</style>
</head>
<body>
<h1>${text(title)}</h1>
<p class="note">${text(to)} against ${text(from)}</p>
<h2>How it looks</h2>
<p>${proof.same} of ${counted(all, 'page')} look the same at every width, in every medium and state (${number(proof.elements)} elements compared).</p>
${pageSections(proof.pages)}
<p class="note">Taken as given: ${proof.given.map(text).join(' ')}</p>
<h2>What was done</h2>
${revisions.length === 0 ? '<p class="note">No revisions are known.</p>' : `<ol>${revisions.map((one) => `<li><b>${text(`r${one.number}`)}</b> ${text(one.message)}${one.note === '' ? '' : `<p class="note">${text(one.note)}</p>`}${list(one.steps.length > 1 ? one.steps : [])}</li>`).join('')}</ol>`}
<h2>Files that leave together</h2>
<p>${counted(files.length, 'file')}, sheets first, so that no page is ever without its look.</p>
<table><thead><tr><th>File</th><th>What</th><th class="n">bytes before</th><th class="n">after</th><th class="n">compressed before</th><th class="n">after</th></tr></thead><tbody>
${files.map((f) => `<tr><td><code>${text(f.path)}</code></td><td>${changeWords[f.change]}</td>${[f.bytesBefore, f.bytesAfter, f.packedBefore, f.packedAfter].map((n) => `<td class="n">${number(n)}</td>`).join('')}</tr>`).join('\n')}
</tbody></table>
<h2>What a visitor fetches</h2>
${weightTable(weight.before, weight.after)}
<h2>What is still wrong</h2>
<p>${counted(links.links, 'link')} to sheets, ${links.missing === 0 ? 'none of them broken' : `<span class="bad">${links.missing} broken</span>`}.</p>
${findings.length === 0 ? '<p>Nothing was found.</p>' : `<table><tbody>${findings.map((one) => `<tr><td>${severityWords[one.severity]}</td><td>${inCode(one.sentence)}</td><td><code>${text(one.places[0] ? `${one.places[0].path}:${one.places[0].line}` : '')}</code></td></tr>`).join('')}</tbody></table>`}
</body>
</html>
`;
}

const changeWords = { created: 'new', edited: 'changed', deleted: 'gone' } as const;
const severityWords = { breaks: 'breaks a page', wrong: 'may look wrong', note: 'worth knowing' } as const;
const one: Readonly<Record<PageProof['verdict'], string>> = { same: 'The same', intended: '1 page looks as it was chosen', unsure: 'Of 1 page it cannot be told', differs: '1 page looks different', added: '1 page is new', removed: '1 page is gone' }; // oxfmt-ignore
const many: Readonly<Record<PageProof['verdict'], string>> = { same: 'are the same', intended: 'look as it was chosen', unsure: 'cannot be told', differs: 'look different', added: 'are new', removed: 'are gone' }; // oxfmt-ignore

/** Pages of which the same is to be said stand together. */
function pageSections(pages: readonly PageProof[]): string {
  const groups = new Map<
    string,
    { readonly verdict: PageProof['verdict']; readonly items: readonly string[]; readonly paths: string[] }
  >();
  for (const page of pages) {
    const items = saidOf(page);
    const key = [page.verdict, ...items].join('\n');
    const group = groups.get(key);
    if (group) group.paths.push(page.path);
    else groups.set(key, { verdict: page.verdict, items, paths: [page.path] });
  }
  return [...groups.values()]
    .map(({ verdict, items, paths }) => {
      const names = paths.map((path) => `<code>${text(path)}</code>`).join(', ');
      return `<p><b>${paths.length === 1 ? one[verdict] : `${number(paths.length)} pages ${many[verdict]}`}</b>: ${names}</p>${items.length === 0 ? '' : `<ul>${items.map((item) => `<li>${item}</li>`).join('')}</ul>`}`;
    })
    .join('\n');
}

const saidOf = ({ causes, notes, doubts }: PageProof): readonly string[] => [
  ...causes.map(
    ({ property, before, after, reason, elements }) =>
      `<code>${text(property)}</code>: <code>${text(before?.value ?? 'nothing')}</code> → <code>${text(after?.value ?? 'nothing')}</code> on ${counted(elements.length, 'element')}. ${inCode(reason)}`,
  ),
  ...notes.map(inCode),
  ...doubts.map(({ sentence }) => inCode(sentence)),
];

function weightTable(before: PageWeight | undefined, after: PageWeight | undefined): string {
  if (!before || !after) return '<p class="note">There is no page.</p>';
  const first = (w: PageWeight): number => w.markup + w.embedded + w.attributes + w.sheets;
  const next = (w: PageWeight): number => first(w) - w.sheets;
  const row = (name: string, read: (w: PageWeight) => number): string =>
    `<tr><td>${name}</td><td class="n">${number(Math.round(read(before)))}</td><td class="n">${number(Math.round(read(after)))}</td></tr>`;
  return `<table><thead><tr><th>Bytes of an average page</th><th class="n">before</th><th class="n">after</th></tr></thead><tbody>${row('first visit, with its sheets', first)}${row('each page after it', next)}${row('of that, styling in the page', (w) => w.embedded + w.attributes)}</tbody></table>`;
}

const list = (sentences: readonly string[]): string =>
  sentences.length === 0 ? '' : `<ul>${sentences.map((one) => `<li>${text(one)}</li>`).join('')}</ul>`;
const counted = (n: number, noun: string): string => `${number(n)} ${noun}${n === 1 ? '' : 's'}`;
const number = (n: number): string => n.toLocaleString('en');

const entities: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
const text = (raw: string): string => raw.replace(/[&<>"]/g, (char) => entities[char]!);
/** Names stand between backticks in sentences. */
const inCode = (sentence: string): string => text(sentence).replace(/`([^`]*)`/g, '<code>$1</code>');
