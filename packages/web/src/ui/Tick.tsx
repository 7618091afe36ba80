import { Checkbox } from 'radix-ui';
import { Check, Minus } from 'lucide-react';

/** A tick box; `some` when part of what it stands for is chosen. */
export function Tick({
  checked,
  onChange,
  label,
}: {
  readonly checked: boolean | 'some';
  readonly onChange: (checked: boolean) => void;
  readonly label: string;
}) {
  return (
    <Checkbox.Root
      className="ck"
      checked={checked === 'some' ? 'indeterminate' : checked}
      onCheckedChange={(next) => onChange(next === true)}
      aria-label={label}
    >
      <Checkbox.Indicator>
        {checked === 'some' ? <Minus aria-hidden="true" /> : <Check aria-hidden="true" />}
      </Checkbox.Indicator>
    </Checkbox.Root>
  );
}
