"use client";

import { Trash2 } from "lucide-react";
import { type DrawnFrame, flatParts, handedness, joiningOrder, type Structure } from "@/core/frame";
import { physical } from "@/core/units";
import { useJob } from "../../job/JobProvider";
import { Button } from "../../parts/Button";
import { Verdict } from "../../parts/Verdict";
import { OwnJob } from "./OwnJob";

/** Left and right pairs, and sub-assemblies in the order in which they are joined. */
export function SetsPanel({
  frame,
  structure,
  picked,
  onEdit,
}: {
  frame: DrawnFrame;
  structure: Structure;
  picked: readonly string[];
  onEdit: (frame: DrawnFrame) => void;
}) {
  const { units } = useJob("units");
  const order = joiningOrder(structure);
  // Of a frame that nobody took apart yet.
  const flat = frame.groups.length === 0 ? flatParts(structure) : [];
  const free = Array.from({ length: 20 }, (_, i) => `U${i + 1}`).find((id) => !frame.groups.some((g) => g.id === id));
  const half = picked.length >= 2 && picked.length % 2 === 0;
  const move = (i: number, by: number) => {
    const groups = [...frame.groups];
    const [g] = groups.splice(i, 1);
    if (g) groups.splice(i + by, 0, g);
    onEdit({ ...frame, groups });
  };
  return (
    <div className="grid gap-4">
      <h3 className="font-semibold">Left and right</h3>
      <ul className="grid gap-2">
        {frame.pairs.map((p, i) => {
          const hand = handedness(structure, p.left, p.right);
          return (
            <li key={`${p.left.join()}/${p.right.join()}`} className="flex items-start justify-between gap-2">
              <span>
                <Verdict verdict={hand.verdict === "mirrored" ? "pass" : "fail"} /> {hand.why}
              </span>
              <Button
                look="quiet"
                aria-label={`Take the pair ${p.left.join(", ")} and ${p.right.join(", ")} out`}
                onClick={() => onEdit({ ...frame, pairs: frame.pairs.filter((_, n) => n !== i) })}
              >
                <Trash2 size={18} aria-hidden="true" />
              </Button>
            </li>
          );
        })}
      </ul>
      <Button
        className="justify-self-start"
        disabled={!half}
        onClick={() =>
          onEdit({
            ...frame,
            pairs: [
              ...frame.pairs,
              { left: picked.slice(0, picked.length / 2), right: picked.slice(picked.length / 2) },
            ],
          })
        }
      >
        {half
          ? `${picked.slice(0, picked.length / 2).join(", ")} left, ${picked.slice(picked.length / 2).join(", ")} right`
          : "Pick the left ones, then as many right ones"}
      </Button>
      <h3 className="font-semibold">Sub-assemblies, in the order in which they are joined</h3>
      <ol className="grid gap-2">
        {order.map((g, i) => (
          <li key={g.id || "rest"} className="border-t border-line pt-2">
            <div className="flex flex-wrap items-center gap-2">
              <span className="fig font-bold">{i + 1}</span>
              {g.id ? (
                <input
                  aria-label={`Name of ${g.id}`}
                  className="tap min-w-0 grow rounded-[3px] border border-edge bg-well px-3"
                  value={frame.groups[i]?.name ?? ""}
                  maxLength={60}
                  onChange={(e) =>
                    onEdit({
                      ...frame,
                      groups: frame.groups.map((x) => (x.id === g.id ? { ...x, name: e.target.value } : x)),
                    })
                  }
                />
              ) : (
                <span className="grow">{g.name}</span>
              )}
              {g.id ? (
                <>
                  <Button look="quiet" disabled={i === 0} aria-label={`${g.name} earlier`} onClick={() => move(i, -1)}>
                    ↑
                  </Button>
                  <Button
                    look="quiet"
                    disabled={i >= frame.groups.length - 1}
                    aria-label={`${g.name} later`}
                    onClick={() => move(i, 1)}
                  >
                    ↓
                  </Button>
                  <Button
                    look="quiet"
                    aria-label={`Take ${g.name} out`}
                    onClick={() => onEdit({ ...frame, groups: frame.groups.filter((x) => x.id !== g.id) })}
                  >
                    <Trash2 size={18} aria-hidden="true" />
                  </Button>
                </>
              ) : null}
            </div>
            <p className="text-sm">
              {g.members.join(", ") || "no member"}, <span className="fig">{physical("mass", g.massKg, units)}</span>.{" "}
              {g.own.length > 0 ? `Weld its own ${g.own.join(", ")} first. ` : ""}
              {g.toRest.length > 0
                ? `Then join at ${g.toRest.join(", ")}.`
                : i === 0
                  ? "The first stands on the bed."
                  : ""}
            </p>
            {g.warning ? <p className="text-sm text-close">{g.warning}</p> : null}
            {g.id && g.members.length > 1 ? <OwnJob name={g.name} members={g.members} /> : null}
          </li>
        ))}
      </ol>
      {flat.length > 0 ? (
        <Button
          className="justify-self-start"
          onClick={() => onEdit({ ...frame, groups: flat.map((part, i) => ({ id: `U${i + 1}`, ...part })) })}
        >
          Make sub-assemblies of what is flat in it: {flat.map((part) => part.name).join(", ")}
        </Button>
      ) : null}
      <Button
        className="justify-self-start"
        disabled={picked.length === 0 || !free}
        onClick={() => {
          if (!free) return;
          const taken = new Set(picked);
          onEdit({
            ...frame,
            groups: [
              ...frame.groups.map((g) => ({ ...g, members: g.members.filter((m) => !taken.has(m)) })),
              { id: free, name: `sub-assembly ${frame.groups.length + 1}`, members: [...picked] },
            ],
          });
        }}
      >
        {picked.length === 0 ? "Pick members to make a sub-assembly" : `Make a sub-assembly of ${picked.join(", ")}`}
      </Button>
    </div>
  );
}
