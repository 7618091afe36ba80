import { useId } from 'react';
import { RadioGroup } from 'radix-ui';

interface Props<Value extends string> {
  readonly label: string;
  readonly value: Value | undefined;
  readonly options: readonly (readonly [value: Value, words: string])[];
  readonly onChange: (value: Value) => void;
  readonly className?: string;
}

/** One of a few, each on its own line. */
export function Choice<Value extends string>({
  label,
  value,
  options,
  onChange,
  className = 'mt-1.25 pl-5.5',
}: Props<Value>) {
  const id = useId();
  return (
    <RadioGroup.Root
      className={`grid gap-0.5 ${className}`}
      value={value ?? ''}
      onValueChange={(next) => onChange(next as Value)}
      aria-label={label}
    >
      {options.map(([name, words]) => (
        <span key={name} className="flex items-start gap-1.75">
          <RadioGroup.Item
            value={name}
            id={`${id}-${name}`}
            className="peer mt-[.22em] inline-flex size-3.25 flex-none items-center justify-center rounded-full border-[1.5px] border-edge bg-panel data-[state=checked]:border-ink"
          >
            <RadioGroup.Indicator className="size-1.75 rounded-full bg-ink" />
          </RadioGroup.Item>
          <label
            htmlFor={`${id}-${name}`}
            className="peer-data-[state=checked]:font-semibold peer-data-[state=checked]:text-ink"
          >
            {words}
          </label>
        </span>
      ))}
    </RadioGroup.Root>
  );
}
