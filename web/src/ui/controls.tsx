import { ToggleGroup } from "radix-ui";
import { type ComponentProps, useId } from "react";

/** A plain button; `strong` is the one item to do next. */
export function Button({ strong = false, className = "", ...rest }: ComponentProps<"button"> & { strong?: boolean }) {
  const look = strong
    ? "bg-ink text-paper hover:bg-spruce disabled:border disabled:bg-transparent"
    : "border border-ink hover:bg-sunk";
  return (
    <button
      type="button"
      className={`min-h-10 px-3 font-cond text-[1.0625rem] font-semibold disabled:border-rule disabled:text-soft disabled:hover:bg-transparent ${look} ${className}`}
      {...rest}
    />
  );
}

/** One of a few: every choice in view, the chosen one inked. */
export function Choice<T extends string>(props: {
  label: string;
  /** The chosen one; an empty text when none is yet. */
  value: T | "";
  options: readonly (readonly [T, string])[];
  onChange: (value: T) => void;
  wide?: boolean;
}) {
  return (
    <ToggleGroup.Root
      type="single"
      value={props.value}
      aria-label={props.label}
      onValueChange={(value) => value && props.onChange(value as T)}
      className={`border border-ink ${props.wide ? "flex" : "inline-flex"}`}
    >
      {props.options.map(([value, label]) => (
        <ToggleGroup.Item
          key={value}
          value={value}
          className={`min-h-9 px-2.5 font-cond text-[0.9375rem] font-semibold not-first:border-l not-first:border-ink hover:bg-sunk data-[state=on]:bg-ink data-[state=on]:text-paper ${props.wide ? "flex-1" : ""}`}
        >
          {label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}

/** One of many: choices that wrap over lines, the chosen one inked; arrow keys move among them. */
export function Picks<T extends string>(props: {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  onChange: (value: T) => void;
  small?: boolean;
}) {
  const name = useId();
  return (
    <div role="radiogroup" aria-label={props.label} className="flex max-w-full flex-wrap gap-1.5">
      {props.options.map(([value, label]) => (
        <label
          key={value}
          className={`cursor-pointer border border-ink font-cond font-semibold has-focus-visible:outline-2 has-focus-visible:outline-offset-2 ${props.small ? "px-2 py-1.5 text-[0.9375rem]" : "px-3 py-2 text-[1rem]"} ${props.value === value ? "bg-ink text-paper" : "hover:bg-sunk"}`}
        >
          <input
            type="radio"
            name={name}
            className="sr-only"
            checked={props.value === value}
            onChange={() => props.onChange(value)}
          />
          {label}
        </label>
      ))}
    </div>
  );
}
