import { type ReactNode, useId } from "react";
import { useInBrowser } from "./device";
import { FieldFrame } from "./Field";

interface Props<T extends string> {
  label: ReactNode;
  hint?: ReactNode;
  value: T;
  options: readonly (readonly [T, string])[];
  onChange: (value: T) => void;
  className?: string;
}

/** A choice from a list. */
export function SelectField<T extends string>({ label, hint, value, options, onChange, className = "" }: Props<T>) {
  const id = useId();
  // What is chosen before the page is live would be lost: until then it cannot be.
  const isLive = useInBrowser();
  return (
    <FieldFrame id={id} label={label} hint={hint} className={className}>
      <select
        id={id}
        className="tap w-full min-w-0 rounded-[3px] border border-edge bg-well px-3 disabled:text-ink disabled:opacity-100"
        value={value}
        disabled={!isLive}
        onChange={(e) => onChange(e.target.value as T)}
      >
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </FieldFrame>
  );
}
