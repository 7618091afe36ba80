import { expect, test } from '@jest/globals';
import { applyOperations, siteAsChosen, type Operation } from '../operations/operation.ts';
import { planWhole } from '../plan/planWhole.ts';
import { familiesOf } from '../survey/families.ts';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import { markIntended } from './intended.ts';
import { SiteProver } from './siteProver.ts';

const note = '<p class=n>n</p><p>p</p>';
const site = siteOf({
  'a.html': pageOf('<style>.n { border: 1px solid red } p { margin: 0 }</style>', note),
  'b.html': pageOf('<style>.n { border: 1px solid red } p { margin: 0 }</style>', note),
  'c.html': pageOf('<style>.n { border: 1px solid blue } p { margin: 0 }</style>', note),
});

const [family] = familiesOf(site).filter(({ label }) => label === '.n');
const [red, blue] = family!.versions;
const settle: Operation = { kind: 'settle-drift', family: family!.id, version: red!.id, from: [blue!.id] };

function verdicts(operations: readonly Operation[]): readonly string[] {
  const made = applyOperations(site, operations);
  if (!made.ok) throw new Error('refused');
  const after = made.value.site;
  const proof = markIntended(new SiteProver(site).prove(after), siteAsChosen(site, operations), after);
  return [
    proof.verdict,
    ...proof.pages.map(({ path, verdict, causes }) =>
      `${path} ${verdict} ${causes.map((c) => `${c.property}${c.intended ? ' (intended)' : ''}`).join(', ')}`.trim(),
    ),
  ];
}

const gathered = (): readonly Operation[] => {
  const settled = applyOperations(site, [settle]);
  const plan = settled.ok ? planWhole(settled.value.site, 'site.css') : settled;
  if (!plan.ok) throw new Error('refused');
  return [settle, ...plan.value.operations];
};

function edited(operations: readonly Operation[], from: string, to: string): Operation {
  const made = applyOperations(site, operations);
  const sheet = made.ok ? made.value.site.files.get('site.css') : undefined;
  expect(sheet?.text).toContain(from);
  return { kind: 'edit-sheet', path: 'site.css', hash: sheet!.hash, text: sheet!.text!.replace(from, to) };
}

test('a version chosen for another is intended, gathered or not', () => {
  const said = ['intended', 'a.html same', 'b.html same', 'c.html intended border-color (intended)'];
  expect(verdicts([settle])).toEqual(said);
  expect(verdicts(gathered())).toEqual(said);
});

test('what differs besides is not', () => {
  const operations = gathered();
  const edit = edited(operations, 'margin: 0', 'margin: 1px');
  expect(verdicts([...operations, edit])).toEqual([
    'differs',
    'a.html differs margin',
    'b.html differs margin',
    'c.html differs margin, border-color (intended)',
  ]);
});

test('another value than the chosen one is not', () => {
  const operations = gathered();
  const edit = edited(operations, 'solid red', 'solid green');
  expect(verdicts([...operations, edit])).toEqual([
    'differs',
    'a.html differs border-color',
    'b.html differs border-color',
    'c.html differs border-color',
  ]);
});
