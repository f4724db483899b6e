import { usePathname, useSearchParams } from "next/navigation";
import { useCallback, useState } from "react";

/**
 * One word of the address (`?step=…`), so that reload, back and a sent link return to it. The address itself follows a
 * moment later, over the words in between: until it is there, what was asked for last holds. A quick hand loses no key.
 * @param name of the word. @returns its value (null: none) and how to change it: `push` can be gone back from.
 */
export function useAddress(name: string): [string | null, (value: string | null, how?: "push" | "replace") => void] {
  const pathname = usePathname();
  const address = useSearchParams().get(name);
  const [wanted, setWanted] = useState<{ value: string | null; over: readonly (string | null)[] } | null>(null);
  const behind = wanted?.over.includes(address) === true && address !== wanted.value;
  if (wanted && !behind) setWanted(null);
  const move = useCallback(
    (value: string | null, how: "push" | "replace" = "push") => {
      setWanted((w) => ({ value, over: [...(w ? [...w.over, w.value] : []), address] }));
      const url = value === null ? pathname : `${pathname}?${name}=${encodeURIComponent(value)}`;
      if (how === "push") window.history.pushState(null, "", url);
      else window.history.replaceState(null, "", url);
    },
    [address, pathname, name],
  );
  return [wanted && behind ? wanted.value : address, move];
}
