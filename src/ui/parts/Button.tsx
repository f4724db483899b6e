import type { ButtonHTMLAttributes } from "react";

const LOOKS = {
  advise: "bg-plum text-on-plum border-plum hover:brightness-110",
  plain: "bg-well text-ink border-edge hover:border-ink",
  quiet: "bg-transparent text-ink border-transparent hover:border-edge",
} as const;

/** The way buttons look: `advise` for what the tool would do next, `plain` for the rest, `quiet` inside rows. */
export function buttonClass(look: keyof typeof LOOKS = "plain", big = false): string {
  const size = big ? "min-h-14 px-6 text-lg" : "tap px-4";
  return `inline-flex items-center justify-center gap-2 rounded-[3px] border font-semibold select-none disabled:opacity-50 disabled:cursor-not-allowed ${size} ${LOOKS[look]}`;
}

type Props = ButtonHTMLAttributes<HTMLButtonElement> & { look?: keyof typeof LOOKS; big?: boolean };

export function Button({ look = "plain", big = false, className = "", type = "button", ...rest }: Props) {
  return <button type={type} className={`${buttonClass(look, big)} ${className}`} {...rest} />;
}
