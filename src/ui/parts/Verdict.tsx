import type { Overall } from "@/core/check";

const LOOK: Record<Overall, string> = {
  pass: "text-pass",
  fail: "text-fail",
  "too close to call": "text-close",
  "not measured": "text-soft",
};

/** Disc, square, lozenge, ring: the verdict by shape, so that it does not hang on colour. */
function Shape({ verdict }: { verdict: Overall }) {
  switch (verdict) {
    case "pass":
      return (
        <>
          <circle cx="10" cy="10" r="8.5" fill="currentColor" />
          <path d="M5.8 10.4 8.8 13.4 14.4 7" fill="none" stroke="var(--sheet)" strokeWidth="2.2" />
        </>
      );
    case "fail":
      return (
        <>
          <rect x="2" y="2" width="16" height="16" fill="currentColor" />
          <path d="M6 6 14 14M14 6 6 14" stroke="var(--sheet)" strokeWidth="2.2" />
        </>
      );
    case "too close to call":
      return (
        <>
          <path d="M10 1 19 10 10 19 1 10Z" fill="none" stroke="currentColor" strokeWidth="2.2" />
          <path d="M5.8 10h8.4" stroke="currentColor" strokeWidth="2.2" />
        </>
      );
    default:
      return <circle cx="10" cy="10" r="8" fill="none" stroke="currentColor" strokeWidth="2" strokeDasharray="3 2.6" />;
  }
}

/** A verdict by shape, word and colour. */
export function Verdict({
  verdict,
  big = false,
  className = "",
}: {
  verdict: Overall;
  big?: boolean;
  className?: string;
}) {
  const size = big ? 30 : 18;
  return (
    <span
      className={`inline-flex items-center gap-2 font-semibold whitespace-nowrap ${LOOK[verdict]} ${big ? "text-2xl" : ""} ${className}`}
    >
      <svg viewBox="0 0 20 20" width={size} height={size} aria-hidden="true" className="shrink-0">
        <Shape verdict={verdict} />
      </svg>
      {verdict}
    </span>
  );
}
