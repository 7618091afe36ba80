import { useState } from 'react';
import { isPlainName } from '@syndeton/core';
import { Act } from '../../ui/Act.tsx';
import { Field } from '../../ui/Field.tsx';
import { count } from '../../ui/format.ts';

/** An element picked on a page, by its path. */
export interface Picked {
  readonly page: string;
  readonly element: string;
}

/** Picked once more it is no longer chosen. */
export const toggled = (chosen: readonly Picked[], one: Picked): readonly Picked[] => {
  const rest = chosen.filter(({ page, element }) => page !== one.page || element !== one.element);
  return rest.length < chosen.length ? rest : [...chosen, one];
};

interface Props {
  /** Undefined while a click goes to a rule. */
  readonly chosen: readonly Picked[] | undefined;
  readonly names: readonly string[];
  readonly onPicking: (on: boolean) => void;
  readonly onClass: (name: string, take: boolean) => void;
}

/** Elements clicked on pages get a class, or lose one. */
export function ClassForPicked({ chosen, names, onPicking, onClass }: Props) {
  const [name, setName] = useState('');
  const said = name.trim().replace(/^\./, '');
  const isWrong = said !== '' && !isPlainName(said, 'class');
  if (!chosen)
    return (
      <p className="pt-2 text-table">
        A click goes to the rule that decides. <Act onClick={() => onPicking(true)}>Pick elements for a class</Act>
      </p>
    );
  const ready = said !== '' && !isWrong && chosen.length > 0;
  return (
    <form
      className="flex flex-wrap items-center gap-3 pt-2 text-table"
      onSubmit={(event) => {
        event.preventDefault();
        if (ready) onClass(said, false);
      }}
    >
      <b>{count(chosen.length, 'element')} picked</b>
      <Field
        className="w-30!"
        aria-label="Class for the picked elements"
        placeholder="class"
        list="class-names"
        value={name}
        aria-invalid={isWrong}
        onChange={(event) => setName(event.target.value)}
      />
      <datalist id="class-names">
        {names.map((one) => (
          <option key={one} value={one} />
        ))}
      </datalist>
      <Act type="submit" disabled={!ready}>
        Give it
      </Act>
      <Act disabled={!ready} onClick={() => onClass(said, true)}>
        Take it
      </Act>
      <Act onClick={() => onPicking(false)}>Stop picking</Act>
      {isWrong && (
        <span className="text-note font-medium text-error">
          {/\s/.test(said)
            ? 'A space parts names: one class at a time.'
            : 'Letters, digits, hyphens and underscores, a letter first.'}
        </span>
      )}
    </form>
  );
}
