import type { ElementTable, Overrides, QuestionAnswer, ValueDecider } from '@syndeton/core';

const plain = (text: string): string => text.replaceAll('`', '');

/** One element's table: a property, who says what, and a sentence. */
export function printTable({ page, name, text, line, rows }: ElementTable): string {
  const head = `${name} on ${page}:${line}${text === '' ? '' : ` “${text}”`}`;
  const lines = rows.flatMap(({ property, entries, sentence }) => [
    `  ${property}`,
    ...entries.map((one) => {
      const mark = one.state === 'wins' ? '=' : one.state === 'loses' ? '-' : '·';
      const where = one.source === 'browser' ? 'browser' : `${one.file}:${one.line}`;
      const said = `${one.declared === '' ? '' : `${one.declared}: `}${one.value}${one.important ? ' !important' : ''}`;
      const by = [one.selector, one.specificity].filter((x) => x !== undefined).join(' ');
      return `    ${mark} ${said}  ${where}${by === '' ? '' : `  ${by}`}${one.reason ? `  ${one.reason.words}` : ''}`;
    }),
    `    ${plain(`${sentence.lead} ${sentence.rest}`)}`,
  ]);
  return [head, ...(lines.length === 0 ? ['  nothing is said for it'] : lines)].join('\n');
}

export function printAnswer(selector: string, property: string, answer: QuestionAnswer): string {
  const head = `${property} of ${selector}: ${count(answer.values.length, 'value')} on ${count(answer.pages, 'page')}, ${count(answer.elements, 'element')}`;
  return [
    head,
    ...answer.values.flatMap((value) => [
      `  ${value.value}  ${count(value.pages.length, 'page')}`,
      ...value.deciders.flatMap((one) => [
        `    ${decider(one)}  ${count(one.pages.length, 'page')}: ${one.pages.slice(0, 6).join(', ')}${one.pages.length > 6 ? ` and ${one.pages.length - 6} more` : ''}`,
        `      ${plain(`${one.sentence.lead} ${one.sentence.rest}`)}`,
      ]),
    ]),
    ...(answer.without > 0 ? [`  ${count(answer.without, 'page')} without such an element`] : []),
  ].join('\n');
}

function decider({ kind, path, selector, specificity }: ValueDecider): string {
  if (kind === 'browser') return `the browser’s own ${selector}`;
  if (kind === 'initial') return 'the initial value';
  if (kind === 'attribute') return 'a style attribute';
  if (kind === 'presentational') return `the ${selector} attribute`;
  return `${selector} ${specificity ?? ''} in ${kind === 'embedded' ? 'an embedded block' : path}`;
}

export function printOverrides({ overrides, alwaysBeaten }: Overrides): string {
  const copies = overrides.filter((one) => one.cause === 'copy').length;
  return [
    `${count(overrides.length, 'declaration')} in pages beat shared ones; ${copies} only repeat them`,
    ...overrides.map((one) => {
      const what =
        one.kind === 'attribute'
          ? `style="${one.property}: ${one.value}" on ${one.selector}`
          : `${one.selector} { ${one.property}: ${one.value} }`;
      const effect =
        one.changes === 0
          ? 'nothing changes without it'
          : `${count(one.changes, 'element')} would change, to ${one.then[0]!.value}`;
      return `  ${one.cause.padEnd(11)} ${what}  over ${one.beats.selector} { ${one.beats.value} } in ${one.beats.path}  ${count(one.pages.length, 'page')}, ${count(one.elements, 'element')}; ${effect}`;
    }),
    ...alwaysBeaten.map(
      (one) =>
        `  never wins  ${one.path} ${one.selector} { ${one.property}: ${one.value} }: ${one.by[0]!.path} ${one.by[0]!.selector} always beats it`,
    ),
  ].join('\n');
}

const count = (n: number, word: string): string => `${n.toLocaleString('en')} ${word}${n === 1 ? '' : 's'}`;
