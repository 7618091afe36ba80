// Gathers documentation sets nobody here wrote by the command line and lets Chromium alone compare every sampled page:
//   node scripts/compareDocs.mjs DIR [--limit 24] [PACKAGE…]      (packages fetched by scripts/fetchDocs.sh into DIR)
// Prints a line a set and writes the table of docs/debianSets.md.
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { compareSites } from './compareSites.mjs';

const { values, positionals } = parseArgs({ allowPositionals: true, options: { limit: { type: 'string' } } });
const [dir, ...packages] = positionals;
const limit = Number(values.limit ?? 24);
const table = 'docs/debianSets.md';

let wrong = 0;
for (const name of packages) await ask(name, path.join(dir, name));
await ask('demo (Brindle Sound Ferry)', 'demo');
process.exitCode = wrong > 0 ? 1 : 0;

async function ask(name, before) {
  const row = await askSet(name, before);
  if (row.differing > 0) wrong++;
  writeRow(row);
}

async function askSet(name, before) {
  const after = path.join(dir, 'gathered', name.split(' ')[0]);
  fs.rmSync(after, { recursive: true, force: true });
  const report = gather(before, after);
  const { totals, figures } = report;
  const perPage = (links) => (links / totals.pages).toFixed(1);
  const result = await compareSites(before, after, { limit, widths: [1280, 480] });
  for (const { page, medium, found } of result.differing.slice(0, 6)) console.log(`  ${page} (${medium}): ${found[0]}`);
  const reasons = {};
  for (const page of report.pages) for (const { code } of page.stayed) reasons[code] = (reasons[code] ?? 0) + 1;
  const row = {
    name,
    pages: totals.pages,
    blocks: `${totals.blocksBefore} → ${totals.blocksAfter}`,
    attributes: `${totals.attributesBefore} → ${totals.attributesAfter}`,
    sheets: figures.newSheets,
    links: `${perPage(figures.linksBefore)} → ${perPage(figures.linksAfter)}`,
    marks: figures.marks === 0 ? '0' : `${figures.marks} on ${figures.markedPages}`,
    classes: `${figures.classesMade} + ${figures.namesUsed}`,
    repeated: figures.repeatedClasses,
    twice: figures.declarationsTwice,
    gzip: `${kilo(figures.gzipBefore)} → ${kilo(figures.gzipAfter)}`,
    proof: report.proof.verdict,
    asked: result.pages,
    boxes: result.boxes,
    differing: result.differing.length,
    stays: Object.entries(reasons)
      .map(([code, count]) => `${count} ${code}`)
      .join(', '),
  };
  console.log(JSON.stringify(row));
  return row;
}

function gather(before, after) {
  const args = ['packages/cli/bin/syndeton.mjs', 'gather', before, '--out', after, '--json'];
  return JSON.parse(execFileSync(process.execPath, args, { encoding: 'utf8', maxBuffer: 1e9 }));
}

function kilo(bytes) {
  return Math.round(bytes / 1000).toLocaleString('en');
}

/** Puts the row into the table, in place of an earlier one of the set. */
function writeRow(row) {
  const line = `| ${[row.name, row.pages, row.blocks, row.attributes, row.sheets, row.links, row.marks, row.classes, row.repeated, row.twice, row.gzip, row.proof, row.asked, row.boxes.toLocaleString('en'), row.differing, row.stays || 'nothing'].join(' | ')} |`;
  const lines = fs.readFileSync(table, 'utf8').trimEnd().split('\n');
  const at = lines.findIndex((one) => one.startsWith(`| ${row.name} |`));
  if (at < 0) lines.push(line);
  else lines[at] = line;
  fs.writeFileSync(table, `${lines.join('\n')}\n`);
}
