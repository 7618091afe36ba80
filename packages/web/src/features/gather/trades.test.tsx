import { expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ProposalReply } from '@syndeton/contract';
import { Trades } from './Trades.tsx';

type Trade = ProposalReply['trades'][number];

const rule: Trade = {
  operation: { kind: 'follow-rule', family: 'p', pages: ['history.html'] },
  label: 'p',
  pages: ['history.html'],
  others: 14,
  properties: ['margin', 'color', 'width', 'height', 'top'],
  saves: { marks: 1, rules: 2 },
} as unknown as Trade;
const scale: Trade = {
  ...rule,
  pages: ['booking.html'],
  properties: ['padding-left'],
  saves: { marks: 0, rules: 1 },
  scale: { elements: 4, to: '10px', from: ['6px', '8px'] },
} as unknown as Trade;
const onTake = jest.fn();
const said = (trades: readonly Trade[]): readonly string[] => {
  render(<Trades trades={trades} onTake={onTake} />);
  return screen.getAllByRole('listitem', { hidden: true }).map((one) => one.textContent ?? '');
};

test('each says what would be otherwise where, what it saves and what changes; it can be taken', async () => {
  const [first, second] = said([rule, scale]);
  expect(first).toContain(
    'Let history say p as 14 other pages do: 1 class and 2 rules fewer. changes margin, color, width, height',
  );
  expect(second).toContain('Let 4 p on booking have padding-left: 10px in place of 6px, 8px: 1 rule fewer.');
  expect(screen.getByText('2 trades make it simpler, where pages may look different')).toBeTruthy();
  await userEvent.click(screen.getByText(/^2 trades/));
  await userEvent.click(screen.getAllByRole('button', { name: 'Take it', hidden: true })[1]!);
  expect(onTake).toHaveBeenCalledWith(scale);
});

test('one is said to be one; of many those that save most are shown', () => {
  expect(said([{ ...rule, others: 1 }])[0]).toContain('as 1 other page does');
  expect(screen.getByText(/^One trade makes it simpler/)).toBeTruthy();
  const many = Array.from({ length: 30 }, (_, i) => ({ ...rule, label: `.r${i}` }));
  expect(said(many).slice(1)).toHaveLength(20);
});
