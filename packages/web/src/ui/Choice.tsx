import { useId } from 'react';
import { RadioGroup } from 'radix-ui';

interface Props<Value extends string> {
  readonly label: string;
  readonly value: Value | undefined;
  readonly options: readonly (readonly [value: Value, words: string])[];
  readonly onChange: (value: Value) => void;
}

/** One of a few, each on its own line. */
export function Choice<Value extends string>({ label, value, options, onChange }: Props<Value>) {
  const id = useId();
  return (
    <RadioGroup.Root
      className="choice"
      value={value ?? ''}
      onValueChange={(next) => onChange(next as Value)}
      aria-label={label}
    >
      {options.map(([name, words]) => (
        <span key={name}>
          <RadioGroup.Item value={name} id={`${id}-${name}`} className="rd">
            <RadioGroup.Indicator />
          </RadioGroup.Item>
          <label htmlFor={`${id}-${name}`}>{words}</label>
        </span>
      ))}
    </RadioGroup.Root>
  );
}
