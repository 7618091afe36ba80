import { useId, useMemo, useState } from 'react';
import { coloursIn, declarationValidity, longhandsOf, type OutlinedRule, type Said } from '@syndeton/core';
import type { SiteWordsReply } from '@syndeton/contract';
import { formRowLook } from '../../ui/looks.ts';
import { Field, SelectField } from '../../ui/Field.tsx';
import { Act } from '../../ui/Act.tsx';
import { formProperties, lengthParts, units, type FormProperty } from './formProperties.ts';

interface Props {
  readonly rule: OutlinedRule;
  readonly words: Pick<SiteWordsReply, 'colours' | 'fonts'> | undefined;
  readonly onSet: (said: Said) => void;
  readonly onDrop: (property: string) => void;
}

/** A rule without code: what it says, by name, with a control that fits; each change is one in the text beside it. */
export function RuleForm({ rule, words, onSet, onDrop }: Props) {
  const [adding, setAdding] = useState('');
  const said = useMemo(() => new Map(rule.declarations.map((one) => [one.property, one])), [rule]);
  const names = [...said.keys()];
  const add = (property: string): void => {
    const first = formProperties.find(({ name }) => name === property)?.first;
    setAdding('');
    if (property !== '') onSet({ property, value: first ?? 'inherit' });
  };
  return (
    <form
      className="text-table/[inherit] grid gap-1.5"
      aria-label={`What ${rule.selector} says`}
      onSubmit={(event) => event.preventDefault()}
    >
      {names.map((property) => (
        <Row
          key={property}
          property={property}
          value={said.get(property)!.value}
          words={words}
          onValue={(value) => onSet({ property, value, ...(said.get(property)!.important ? { important: true } : {}) })}
          onDrop={() => onDrop(property)}
        />
      ))}
      <label className={formRowLook}>
        <span>Say one more</span>
        <SelectField value={adding} onChange={(event) => add(event.target.value)}>
          <option value="">choose …</option>
          {formProperties
            .filter(({ name }) => !said.has(name))
            .map(({ name, label }) => (
              <option key={name} value={name}>
                {label}
              </option>
            ))}
        </SelectField>
      </label>
    </form>
  );
}

function Row({
  property,
  value,
  words,
  onValue,
  onDrop,
}: {
  readonly property: string;
  readonly value: string;
  readonly words: Props['words'];
  readonly onValue: (value: string) => void;
  readonly onDrop: () => void;
}) {
  const id = useId();
  const known = formProperties.find(({ name }) => name === property);
  const isRight = declarationValidity(property, value) !== 'invalid' || longhandsOf(property).length === 0;
  return (
    <div className={formRowLook}>
      <label htmlFor={id}>{known?.label ?? property}</label>
      <Control id={id} known={known} property={property} value={value} words={words} onValue={onValue} />
      <Act aria-label={`Take ${property} out`} onClick={onDrop}>
        Take out
      </Act>
      {!isRight && <span className="text-note font-medium text-error col-span-3">No browser takes this value.</span>}
    </div>
  );
}

function Control({
  id,
  known,
  property,
  value,
  words,
  onValue,
}: {
  readonly id: string;
  readonly known: FormProperty | undefined;
  readonly property: string;
  readonly value: string;
  readonly words: Props['words'];
  readonly onValue: (value: string) => void;
}) {
  const list = `${id}-list`;
  const length = known?.control === 'length' ? lengthParts(value) : undefined;
  const hex = known?.control === 'colour' ? hexOf(value) : undefined;
  if (known?.control === 'choice' && known.choices.includes(value))
    return (
      <SelectField id={id} value={value} onChange={(event) => onValue(event.target.value)}>
        {known.choices.map((one) => (
          <option key={one}>{one}</option>
        ))}
      </SelectField>
    );
  if (length)
    return (
      <span className="flex gap-1">
        <Field
          id={id}
          className="w-20!"
          type="number"
          step="any"
          value={length.number}
          onChange={(event) => event.target.value !== '' && onValue(event.target.value + length.unit)}
        />
        <SelectField
          className="w-20!"
          aria-label={`Unit of ${property}`}
          value={length.unit}
          onChange={(event) => onValue(length.number + event.target.value)}
        >
          {units.map((unit) => (
            <option key={unit}>{unit}</option>
          ))}
        </SelectField>
      </span>
    );
  return (
    <span className="flex gap-1">
      {hex !== undefined && (
        <input
          type="color"
          className="w-7 h-7 flex-none border border-line-2 rounded-sm p-0.5 bg-panel"
          aria-label={`Colour of ${property}`}
          value={hex}
          onChange={(event) => onValue(event.target.value)}
        />
      )}
      <Field
        id={id}
        list={list}
        value={value}
        onChange={(event) =>
          event.target.value.trim() !== '' && !/[;{}]/.test(event.target.value) && onValue(event.target.value)
        }
      />
      <datalist id={list}>
        {(known?.control === 'font' ? words?.fonts : known?.control === 'colour' ? words?.colours : [])?.map(
          ({ name }) => (
            <option key={name} value={name} />
          ),
        )}
      </datalist>
    </span>
  );
}

/** As a colour field wants it; undefined for what is not one plain colour. */
function hexOf(value: string): string | undefined {
  if (coloursIn(value)[0] !== value.trim()) return undefined;
  const short = /^#([0-9a-f])([0-9a-f])([0-9a-f])$/i.exec(value.trim());
  if (short)
    return `#${short
      .slice(1)
      .map((digit) => digit + digit)
      .join('')}`.toLowerCase();
  return /^#[0-9a-f]{6}$/i.test(value.trim()) ? value.trim().toLowerCase() : undefined;
}
