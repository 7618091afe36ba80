import { describe, expect, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import { CopiesStrip } from './CopiesStrip.tsx';
import { count, kB, pageName, someNames } from './format.ts';
import { Mark, markNames, type MarkKind } from './Mark.tsx';
import { loopPaths, slackPath, turnPaths } from './threadPath.ts';

test.each([
  [count(1, 'page'), '1 page'],
  [count(3012, 'page'), '3,012 pages'],
  [kB(38600), '38.6 kB'],
  [pageName('a/b.html'), 'a/b'],
  [pageName('a/b.htm'), 'a/b.htm'],
  [someNames(['a.html', 'b.html', 'c.html', 'd.html', 'e.html']), 'a, b, c and 2 more'],
  [someNames(['a.html']), 'a'],
])('%s', (said, expected) => {
  expect(said).toBe(expected);
});

test.each(Object.keys(markNames) as MarkKind[])('the mark of %s has a name, and a shape of its own', (kind) => {
  render(<Mark kind={kind} />);
  const shape = screen.getByRole('img', { name: markNames[kind] }).innerHTML;
  for (const other of (Object.keys(markNames) as MarkKind[]).filter((k) => k !== kind)) {
    const { container } = render(<Mark kind={other} hidden />);
    expect(container.querySelector('svg')!.innerHTML).not.toBe(shape);
  }
});

describe('copies strip', () => {
  const pages = Array.from({ length: 5 }, (_, i) => `${i}.html`);
  test('low for the common version, tall for another, a dot for none', () => {
    render(<CopiesStrip pages={pages} versions={[{ pages: ['0.html', '1.html'] }, { pages: ['3.html'] }]} />);
    const strip = screen.getByRole('img', { name: 'on 3 of 5 pages, 2 versions' });
    expect(
      [...strip.querySelectorAll('rect')].map((r) => `${r.getAttribute('class')} ${r.getAttribute('height')}`),
    ).toEqual(['t-common 6', 't-common 6', 't-common 1', 't-other 10', 't-common 1']);
  });
  test('many pages are binned, and no version is lost', () => {
    const many = Array.from({ length: 3000 }, (_, i) => `${i}.html`);
    render(
      <CopiesStrip
        pages={many}
        versions={[{ pages: many.filter((p) => p !== '1717.html') }, { pages: ['1717.html'] }]}
      />,
    );
    const strip = screen.getByRole('img');
    expect(strip.querySelectorAll('rect')).toHaveLength(120);
    expect(strip.querySelectorAll('.t-other')).toHaveLength(1);
  });
});

describe('the thread', () => {
  const knot = (x: number, tied: boolean, waiting = 0) => ({ x, tied, waiting });
  test.each([
    ['taut between two tied knots', slackPath(knot(104, true), knot(282, true)), 'M117 72H269'],
    [
      'six down next to an open one',
      slackPath(knot(104, true), knot(282, false)),
      'M117 72 C143 72 148 78 192 78 S241 72 267 72',
    ],
    [
      'eight down between two open ones',
      slackPath(knot(282, false), knot(460, false)),
      'M297 72 C323 72 327 80 371 80 S419 72 445 72',
    ],
  ])('%s', (_shows, path, expected) => {
    expect(path).toBe(expected);
  });
  test('a loop with decisions waiting is larger', () => {
    expect(loopPaths(knot(282, false, 10))[0]).toContain('291.5');
    expect(loopPaths(knot(460, false))[0]).toContain('467.5');
  });
  test('a tied knot has three turns', () => {
    expect(turnPaths(104)).toHaveLength(3);
  });
});
