import type { Trade } from '@syndeton/core';
import { plural } from './printReport.ts';

const mostShown = 20;
const mostPages = 3;

/** What could be given up for a simpler sheet, numbered as `--trade` asks for it. */
export function printTrades(trades: readonly Trade[]): readonly string[] {
  if (trades.length === 0) return [];
  const lines = [
    '',
    `Trades: a change of look on purpose for a simpler sheet; --trade N takes one (${trades.length}):`,
  ];
  trades.slice(0, mostShown).forEach((trade, i) => {
    const { pages, properties } = trade;
    const more = pages.length > mostPages ? ` and ${pages.length - mostPages} more` : '';
    lines.push(
      `  ${i + 1}. ${pages.slice(0, mostPages).join(', ')}${more}: ${whatIsSaid(trade)}; ${savedBy(trade)} fewer, changes ${properties.slice(0, 4).join(', ')}`,
    );
  });
  if (trades.length > mostShown) lines.push(`  and ${trades.length - mostShown} more`);
  return lines;
}

function whatIsSaid({ label, others, properties, scale }: Trade): string {
  return scale
    ? `${scale.elements} ${label} have ${properties[0]}: ${scale.to} in place of ${scale.from.join(', ')}`
    : `${label} as ${plural(others, 'other page')} say${others === 1 ? 's' : ''} it`;
}

const savedBy = ({ saves: { marks, rules } }: Trade): string =>
  [...(marks > 0 ? [plural(marks, 'class', 'classes')] : []), ...(rules > 0 ? [plural(rules, 'rule')] : [])].join(
    ' and ',
  );
