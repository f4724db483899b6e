"use client";

import { useState } from "react";
import { distanceId, type QuantityId } from "@/core/job";
import { heightPlaces, tapedTo } from "@/core/square";
import { useJob } from "../job/JobProvider";
import { Button } from "../parts/Button";
import { SelectField } from "../parts/SelectField";
import { PointsBeside } from "./PointsBeside";

const KINDS = {
  distance: "a distance between two places",
  angle: "the angle at a corner",
  offset: "how far a place lies off a line",
  height: "the height of a place",
  flush: "a flush step at a joint",
  gap: "a gap at a joint",
  straightness: "how straight a member is",
  edge: "an edge across a diagonal",
  level: "the slope along a member",
  rock: "the rock, one corner held",
} as const;
export type MoreKind = keyof typeof KINDS;

const FREE = "none, free";
const HELD = ["A", "B", "C", "D"] as const;

/** What was chosen as a quantity. */
function quantity(kind: MoreKind, a: string, b: string, c: string): QuantityId {
  switch (kind) {
    case "distance":
      return distanceId(a, b);
    case "angle":
      return { kind, from: b, at: a, to: c };
    case "offset":
      return { kind, of: a, from: b, to: c };
    case "rock":
      return { kind, held: HELD.find((h) => h === a) ?? null };
    default:
      return { kind, at: a };
  }
}

/** Adds one more thing to the list of what is read. */
export function MoreToRead({ kinds, onAdd }: { kinds: readonly MoreKind[]; onAdd: (what: QuantityId) => void }) {
  const { evaluation } = useJob("evaluation");
  const { places, structure } = evaluation;
  const names = Object.keys(places?.nodes ?? {});
  const heights = Object.keys(places ? heightPlaces(places) : {});
  const isRing = structure?.quad != null;
  const taped = Object.keys(places ? tapedTo(places) : {});
  const joints = (structure?.joints ?? []).map((j) => j.id.replace(/[^A-Z0-9]/g, "").slice(0, 10));
  const members = (structure?.members ?? []).map((m) => m.id);
  const [chosen, setKind] = useState<MoreKind>(kinds[0] ?? "distance");
  const [picked, setPicked] = useState<Record<string, string>>({});
  if (!places || names.length < 2) return null;
  // Without four corners there are no diagonals, and three places do not rock.
  const has = (k: MoreKind): boolean => isRing || (k === "rock" ? names.length > 3 : k !== "edge");
  const offered = kinds.filter(has);
  const kind = has(chosen) ? chosen : (offered[0] ?? "distance");
  const lists: Record<MoreKind, [string, readonly string[]][]> = {
    distance: [
      ["From", taped],
      ["to", taped],
    ],
    angle: [
      ["At", names],
      ["between", names],
      ["and", names],
    ],
    offset: [
      ["Of", names],
      ["off the line from", names],
      ["to", names],
    ],
    height: [["Of", heights]],
    flush: [["At joint", joints]],
    gap: [["At joint", joints]],
    straightness: [["Along", members]],
    edge: [["Across", ["AC", "BD", "AB", "BC", "CD", "DA"]]],
    level: [["Along", members]],
    rock: [["Corner held", isRing ? [FREE, ...HELD] : [FREE]]],
  };
  const values = lists[kind].map(
    ([label, list], i) => picked[`${kind} ${label}`] ?? list[Math.min(i, list.length - 1)] ?? "",
  );
  const [a = "", b = "", c = ""] = values;
  const twice = ["distance", "angle", "offset"].includes(kind) && new Set(values).size < values.length;
  return (
    <div className="grid gap-2">
      <SelectField
        label="Read one more thing"
        value={kind}
        options={offered.map((k) => [k, KINDS[k]] as const)}
        onChange={setKind}
      />
      <div className="grid grid-cols-3 gap-2">
        {lists[kind].map(([label, list], i) => (
          <SelectField
            key={label}
            label={label}
            value={values[i] ?? ""}
            options={list.map((n) => [n, n] as const)}
            onChange={(v) => setPicked({ ...picked, [`${kind} ${label}`]: v })}
          />
        ))}
      </div>
      {twice ? <p className="text-sm text-fail">The same place twice: choose another.</p> : null}
      <Button
        className="justify-self-start"
        disabled={twice || values.some((v) => v === "")}
        onClick={() => onAdd(quantity(kind, a, b, c))}
      >
        Put it on the list
      </Button>
      {kinds.includes("distance") ? <PointsBeside /> : null}
    </div>
  );
}
