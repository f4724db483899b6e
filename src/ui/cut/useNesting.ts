import { useEffect, useRef, useState } from "react";
import type { BarPiece, Nesting, Stock } from "@/core/cut";
import { Nestings } from "@/workers/nestings";

/** Waits for a pause in typing before it starts, ms. */
const PAUSE_MS = 250;

type NestingState =
  | { status: "working" }
  | { status: "failed" }
  | { status: "too long"; members: string }
  | { status: "ready"; nesting: Nesting };

/**
 * Works out the buying list of a cut list in a worker; a newer question ends the older one.
 * @param stock null while it has errors: nothing is asked then.
 */
export function useNesting(cut: readonly BarPiece[], stock: Stock | null, faceMm: number): NestingState {
  const key = JSON.stringify([cut.map((c) => [c.cutLongPointMm, c.quantity, c.members]), stock, faceMm]);
  const [answer, setAnswer] = useState<{ key: string; state: NestingState } | null>(null);
  const asked = useRef({ cut, stock, faceMm });
  useEffect(() => {
    asked.current = { cut, stock, faceMm };
  });
  // A worker that has answered is kept for the next question; one that is still at an old question is ended.
  const idle = useRef<Nestings | null>(null);
  useEffect(
    () => () => {
      idle.current?.end();
      idle.current = null;
    },
    [],
  );
  useEffect(() => {
    const { cut: pieces, stock: bars, faceMm: face } = asked.current;
    if (!bars || pieces.length === 0) return;
    let busy: Nestings | null = null;
    let gone = false;
    const answered = (state: NestingState) => {
      if (!gone) setAnswer({ key, state });
    };
    const failed = () => {
      busy?.end();
      busy = null;
      answered({ status: "failed" });
    };
    const timer = window.setTimeout(() => {
      busy = idle.current ?? new Nestings(failed);
      idle.current = null;
      busy.nest(pieces, bars, face).then((found) => {
        answered(
          "tooLong" in found ? { status: "too long", members: found.tooLong } : { status: "ready", nesting: found },
        );
        if (!gone) idle.current = busy;
        busy = null;
      }, failed);
    }, PAUSE_MS);
    return () => {
      gone = true;
      window.clearTimeout(timer);
      busy?.end();
    };
  }, [key]);
  return answer?.key === key ? answer.state : { status: "working" };
}
