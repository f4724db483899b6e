import { type InputHTMLAttributes, useId } from "react";
import { FieldFrame, FieldMessage, inputClass } from "./Field";

interface Props extends Omit<InputHTMLAttributes<HTMLInputElement>, "onChange" | "value"> {
  label: string;
  hint?: string;
  value: string;
  wrong?: string | null;
  onChange: (value: string) => void;
}

/** A line of text with what is wrong with it said at the field. */
export function TextField({ label, hint, value, wrong = null, onChange, ...rest }: Props) {
  const id = useId();
  return (
    <FieldFrame id={id} label={label} hint={hint}>
      <input
        {...rest}
        id={id}
        className={inputClass(wrong !== null, false, false)}
        value={value}
        aria-invalid={wrong !== null}
        aria-describedby={`${id}-wrong`}
        onChange={(e) => onChange(e.target.value)}
      />
      <div id={`${id}-wrong`} aria-live="polite">
        {wrong ? <FieldMessage severity="error">{wrong}</FieldMessage> : null}
      </div>
    </FieldFrame>
  );
}
