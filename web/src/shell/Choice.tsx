import { RadioGroup } from 'radix-ui';

/** A few words of which one holds. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  onChange: (value: T) => void;
}) {
  return (
    <RadioGroup.Root
      value={value}
      onValueChange={(v) => onChange(v as T)}
      aria-label={label}
      className="flex flex-wrap"
      orientation="horizontal"
    >
      {options.map(([id, name]) => (
        <RadioGroup.Item key={id} value={id} className="choice">
          {name}
        </RadioGroup.Item>
      ))}
    </RadioGroup.Root>
  );
}
