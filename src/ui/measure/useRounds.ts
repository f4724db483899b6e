import { usePathname, useSearchParams } from "next/navigation";
import { useCallback } from "react";
import type { Round } from "@/core/job";

/** The rounds of a stage and the one that is shown, kept in the address so that reload and back return to it. */
export function useRounds<R extends Round>(
  rounds: readonly R[],
): { current: R | null; show: (id: string | null) => void; fresh: boolean } {
  const pathname = usePathname();
  const asked = useSearchParams().get("round");
  const show = useCallback(
    (id: string | null) =>
      window.history.pushState(null, "", id === null ? `${pathname}?round=new` : `${pathname}?round=${id}`),
    [pathname],
  );
  const fresh = asked === "new" || rounds.length === 0;
  const current = fresh ? null : (rounds.find((r) => r.round.id === asked) ?? rounds.at(-1) ?? null);
  return { current, show, fresh };
}
