import { useState } from 'react';
import { parseSelectorList } from '@syndeton/core';
import type { SiteWordsReply } from '@syndeton/contract';
import { effectLook, formRowLook } from '../../ui/looks.ts';
import { Field } from '../../ui/Field.tsx';
import { Act } from '../../ui/Act.tsx';
import { count } from '../../ui/format.ts';
import { useSelectorReachQuery } from './sheetsApi.ts';

interface Props {
  readonly at: { readonly id: string; readonly number: number };
  readonly path: string;
  readonly words: SiteWordsReply | undefined;
  readonly onWrite: (selector: string) => void;
}

/** What a new rule is for, from the names of the site; what it would reach is said before it is written. */
export function NewRule({ at, path, words, onWrite }: Props) {
  const [selector, setSelector] = useState('');
  const said = selector.trim();
  const isRead = said !== '' && parseSelectorList(said) !== undefined;
  const { currentData: reach } = useSelectorReachQuery({ ...at, selector: said, sheet: path }, { skip: !isRead });
  const names = [
    ...(words?.elements ?? []).map(({ name }) => name),
    ...(words?.classes ?? []).map(({ name }) => `.${name}`),
    ...(words?.ids ?? []).map(({ name }) => `#${name}`),
  ];
  return (
    <form
      className={`${effectLook} grid gap-1.5 text-table/[inherit]`}
      onSubmit={(event) => {
        event.preventDefault();
        if (!isRead) return;
        onWrite(said);
        setSelector('');
      }}
    >
      <label className={formRowLook}>
        <span>A new rule for</span>
        <Field
          list="rule-names"
          placeholder="h2, .notice, #foot a"
          value={selector}
          aria-invalid={said !== '' && !isRead}
          onChange={(event) => setSelector(event.target.value)}
        />
      </label>
      <datalist id="rule-names">
        {names.slice(0, 500).map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      {said !== '' && (
        <p className="flex items-baseline gap-4 text-table">
          {!isRead ? (
            <span className="font-medium text-error">
              Browsers cannot read this. Write it like .notice, nav a or #form p.
            </span>
          ) : reach ? (
            <span>
              It reaches <b>{count(reach.elements, 'element')}</b> on <b>{count(reach.pages.length, 'page')}</b>.
            </span>
          ) : (
            <span className="text-note text-ink-3">Looking …</span>
          )}
          {isRead && <Act type="submit">Write it</Act>}
        </p>
      )}
    </form>
  );
}
