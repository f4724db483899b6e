import type { ReactNode } from "react";

/** A part of a page under a small heading, ruled off like a page of a notebook. */
export function Section({
  title,
  aside,
  children,
  className = "",
}: {
  title: string;
  aside?: ReactNode;
  children: ReactNode;
  className?: string;
}) {
  return (
    <section className={`border-t border-line pt-4 ${className}`}>
      <div className="mb-3 flex flex-wrap items-baseline justify-between gap-x-4 gap-y-1">
        <h2 className="text-lg">{title}</h2>
        {aside}
      </div>
      {children}
    </section>
  );
}

/** The sentence that every screen opens with: what to do next, then why. Plum: the tool advises. */
export function Now({ say, why, children }: { say: ReactNode; why?: ReactNode; children?: ReactNode }) {
  return (
    <div className="border-l-4 border-plum py-0.5 pl-4" data-testid="now">
      <p className="text-xl leading-snug font-semibold text-plum sm:text-2xl">{say}</p>
      {why ? <p className="mt-1 max-w-prose text-soft">{why}</p> : null}
      {children}
    </div>
  );
}

/** A caution, once, where it belongs. */
export function Caution({ children }: { children: ReactNode }) {
  return (
    <p className="flex max-w-prose gap-2 border-l-4 border-close py-0.5 pl-4 text-[0.95rem]">
      <span>
        <strong>Mind: </strong>
        {children}
      </span>
    </p>
  );
}
