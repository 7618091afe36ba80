import type { ReactNode } from 'react';
import type { RuleRef } from '@syndeton/core';
import type { DraftReply, SiteWordsReply } from '@syndeton/contract';
import { Act } from '../../ui/Act.tsx';
import { count, kB, pageName } from '../../ui/format.ts';
import { Mark } from '../../ui/Mark.tsx';
import { Swatch } from '../../ui/Swatch.tsx';
import { ruleDrag } from './ruleRefOf.ts';

interface Props {
  readonly sheets: DraftReply['sheets'];
  readonly path: string;
  /** Sheets with text that is not in the draft yet. */
  readonly unfinished: readonly string[];
  readonly used: Pick<SiteWordsReply, 'colours' | 'fonts'>;
  readonly acts: ReactNode;
  readonly onOpen: (path: string) => void;
  readonly onNew: () => void;
  readonly onValue: (value: string) => void;
  /** A rule was dropped on a sheet. */
  readonly onRule: (to: string, rule: RuleRef) => void;
}

/** All sheets of the site, what can be done with the one opened, and the colours and fonts in it. */
export function SheetList({ sheets, path, unfinished, used, acts, onOpen, onNew, onValue, onRule }: Props) {
  return (
    <nav className="bg-ground border-r border-line-2 pt-3 min-w-0 overflow-auto" aria-label="Sheets">
      <h2 className="flex items-baseline justify-between px-4 pb-1.5 text-body!">
        Sheets
        <Act onClick={onNew}>New sheet</Act>
      </h2>
      {sheets.map((one) => (
        <button
          key={one.path}
          type="button"
          className={`block w-full pt-1.5 pr-3 pb-1.75 pl-4 text-left text-note text-ink-3 focus-visible:shadow-within [&>span]:block [&>span]:pl-5.75 [&_svg]:mr-1.25 ${one.path === path ? 'bg-panel shadow-[inset_3px_0_0_var(--ink),0_1px_0_var(--line-2),0_-1px_0_var(--line-2)]' : ''}`}
          aria-current={one.path === path}
          title={one.path}
          onClick={() => onOpen(one.path)}
          onDragOver={(event) => {
            if (one.path !== path && event.dataTransfer.types.includes(ruleDrag)) event.preventDefault();
          }}
          onDrop={(event) => {
            const rule = event.dataTransfer.getData(ruleDrag);
            if (rule !== '') onRule(one.path, JSON.parse(rule) as RuleRef);
          }}
        >
          <span className="m truncate pl-0! leading-4.5 font-semibold text-ink">
            <Mark kind="linked" hidden /> {one.path}
          </span>
          <span>
            {count(one.rules, 'rule')}, {kB(one.bytes)}
          </span>
          <span>{usedBy(one.pages)}</span>
          {unfinished.includes(one.path) && <span className="text-ink">not in the draft yet</span>}
        </button>
      ))}
      <div className="px-4 pt-6 pb-3 text-table">
        <h3 className="pb-1.5 text-body! font-bold">In {path}</h3>
        {used.colours.length > 0 && (
          <ul
            className="flex flex-wrap gap-0.75 [&_.sw]:block [&_.sw]:size-5 [&_.sw]:rounded-sm"
            aria-label={count(used.colours.length, 'colour')}
          >
            {used.colours.slice(0, 24).map(({ name, uses }) => (
              <li key={name}>
                <button
                  type="button"
                  title={`${name}, ${uses} times`}
                  aria-label={`${name}, ${uses} times`}
                  onClick={() => onValue(name)}
                >
                  <Swatch colour={name} />
                </button>
              </li>
            ))}
          </ul>
        )}
        {used.fonts.length > 0 && (
          <p className="flex flex-wrap gap-y-0.5 gap-x-3 pt-2 pb-0.5">
            {used.fonts.slice(0, 6).map(({ name }) => (
              <button key={name} type="button" style={{ fontFamily: name }} title={name} onClick={() => onValue(name)}>
                {name.split(',')[0]!.replace(/["']/g, '')}
              </button>
            ))}
          </p>
        )}
        {acts}
      </div>
    </nav>
  );
}

const usedBy = (pages: readonly string[]): string =>
  pages.length === 0 ? 'no page links it' : pages.length === 1 ? pageName(pages[0]!) : `${pages.length} pages`;
