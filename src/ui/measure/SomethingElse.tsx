"use client";

import dynamic from "next/dynamic";
import type { QuantityId } from "@/core/job";
import { Fold } from "../parts/Fold";
import { useWarm } from "../parts/useWarm";
import type { MoreKind } from "./MoreToRead";

const moreToRead = () => import("./MoreToRead");
const MoreToRead = dynamic(() => moreToRead().then((m) => m.MoreToRead), { ssr: false });
const LATER = [moreToRead];

/** Whatever else can be read on a frame: folded away, put on the list and asked for at once. */
export function SomethingElse({
  note,
  kinds,
  onAdd,
}: {
  note: string;
  kinds: readonly MoreKind[];
  onAdd: (what: QuantityId) => void;
}) {
  useWarm(LATER);
  return (
    <Fold title="Something else to read" note={note}>
      <MoreToRead kinds={kinds} onAdd={onAdd} />
    </Fold>
  );
}
