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
      className="inline-flex size-3.5 flex-none items-center justify-center rounded-sm border-[1.5px] border-edge bg-panel align-[-2px] not-data-[state=unchecked]:border-ink not-data-[state=unchecked]:bg-ink not-data-[state=unchecked]:text-panel [&_svg]:size-2.5 [&_svg]:stroke-3"
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
