import { type RefObject, useEffect, useRef } from "react";

/**
 * How often the connection came back since the page is there: what fails for want of it may only notice after it is back.
 * @param then what is done each time.
 */
export function useCameBack(then: () => void): RefObject<number> {
  const times = useRef(0);
  const done = useRef(then);
  useEffect(() => {
    done.current = then;
  });
  useEffect(() => {
    const online = () => {
      times.current++;
      done.current();
    };
    window.addEventListener("online", online);
    return () => window.removeEventListener("online", online);
  }, []);
  return times;
}
