"use client";

import { Plus, Trash2 } from "lucide-react";
import {
  clearances,
  type DrawnFrame,
  place,
  type Structure,
  splitForSize,
  splitMember,
  statedPoint,
} from "@/core/frame";
import { formatLength, length, type UnitPreference } from "@/core/units";
import { Button } from "../../parts/Button";
import { LengthField } from "../../parts/LengthField";
import { Verdict } from "../../parts/Verdict";
import { PointFields } from "./PointFields";

/** Gaps to keep to objects and the floor, and the largest size that a tank, a lorry or a doorway takes. */
export function RoomPanel({
  frame,
  structure,
  units,
  onEdit,
}: {
  frame: DrawnFrame;
  structure: Structure;
  units: UnitPreference;
  onEdit: (frame: DrawnFrame) => void;
}) {
  const gaps = clearances(frame, structure, units);
  const free = Array.from({ length: 20 }, (_, i) => `G${i + 1}`).find(
    (id) => !frame.obstacles.some((o) => o.id === id),
  );
  const plan = frame.largest && splitForSize(structure, place(frame.largest.size), units);
  const show = (mm: number): string => formatLength(mm, units, { trim: true }).text;
  return (
    <div className="grid gap-4">
      <ul className="grid gap-2">
        {gaps.map((g) => (
          <li key={g.of}>
            <Verdict verdict={g.ok ? "pass" : "fail"} />{" "}
            <span>
              {g.name}: gap <span className="fig">{show(g.gapMm)}</span>, wanted{" "}
              <span className="fig">{show(g.leastMm)}</span>. {g.why}
            </span>
          </li>
        ))}
      </ul>
      {frame.obstacles.map((o) => {
        const set = (what: Partial<typeof o>) =>
          onEdit({ ...frame, obstacles: frame.obstacles.map((x) => (x.id === o.id ? { ...x, ...what } : x)) });
        return (
          <fieldset key={o.id} className="grid gap-2 border-t border-line pt-2">
            <legend className="sr-only">Object {o.id}</legend>
            <div className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
              <label className="text-sm font-semibold">
                {o.id} is
                <input
                  className="tap mt-1 w-full min-w-0 rounded-[3px] border border-edge bg-well px-3 font-normal"
                  value={o.name}
                  maxLength={60}
                  onChange={(e) => set({ name: e.target.value })}
                />
              </label>
              <LengthField
                label={`${o.id}, least gap`}
                units={units}
                value={o.least}
                onChange={(least) => least && set({ least })}
              />
              <Button
                look="quiet"
                aria-label={`Take ${o.id} out`}
                onClick={() => onEdit({ ...frame, obstacles: frame.obstacles.filter((x) => x.id !== o.id) })}
              >
                <Trash2 size={18} aria-hidden="true" />
              </Button>
            </div>
            <PointFields
              label={`${o.id}, lower left front corner`}
              value={o.at}
              units={units}
              onChange={(at) => set({ at })}
            />
            <PointFields
              label={`${o.id}, size`}
              value={o.size}
              units={units}
              onChange={(size) => set({ size })}
              hints={false}
            />
          </fieldset>
        );
      })}
      <div className="flex flex-wrap gap-2">
        <Button
          disabled={!free}
          onClick={() =>
            free &&
            onEdit({
              ...frame,
              obstacles: [
                ...frame.obstacles,
                {
                  id: free,
                  name: "",
                  at: statedPoint([structure.low[0] + 100, structure.low[1] + 100, structure.low[2]], units),
                  size: statedPoint([300, 200, 200], units),
                  least: length("10"),
                },
              ],
            })
          }
        >
          <Plus size={18} aria-hidden="true" /> An object to clear
        </Button>
        <Button
          onClick={() =>
            onEdit({
              ...frame,
              floor: frame.floor ? null : { at: statedPoint([0, 0, structure.low[2]], units).z, least: length("0") },
            })
          }
        >
          {frame.floor ? "No floor" : "A floor to clear"}
        </Button>
        <Button
          onClick={() =>
            onEdit({
              ...frame,
              largest: frame.largest ? null : { what: "the zinc tank", size: statedPoint([3000, 1500, 1200], units) },
            })
          }
        >
          {frame.largest ? "No largest size" : "A largest size"}
        </Button>
      </div>
      {frame.floor ? (
        <div className="grid grid-cols-2 gap-2">
          <LengthField
            label="Floor at z"
            units={units}
            value={frame.floor.at}
            onChange={(at) => at && frame.floor && onEdit({ ...frame, floor: { ...frame.floor, at } })}
          />
          <LengthField
            label="Least gap to the floor"
            units={units}
            value={frame.floor.least}
            onChange={(least) => least && frame.floor && onEdit({ ...frame, floor: { ...frame.floor, least } })}
          />
        </div>
      ) : null}
      {frame.largest ? (
        <div className="grid gap-2 border-t border-line pt-2">
          <label className="text-sm font-semibold">
            Must go into
            <input
              className="tap mt-1 w-full rounded-[3px] border border-edge bg-well px-3 font-normal"
              value={frame.largest.what}
              maxLength={60}
              onChange={(e) =>
                frame.largest && onEdit({ ...frame, largest: { ...frame.largest, what: e.target.value } })
              }
            />
          </label>
          <PointFields
            label="Its size"
            value={frame.largest.size}
            units={units}
            onChange={(size) => frame.largest && onEdit({ ...frame, largest: { ...frame.largest, size } })}
            hints={false}
          />
          {plan ? (
            <>
              <p className="text-plum">
                {plan.at.length > 0
                  ? `Part it at ${plan.axis} ${plan.at.map(show).join(", ")}: cuts ${plan.cuts.map((c) => c.join(", ") || "nothing").join("; then ")}.`
                  : "It cannot be parted so that it fits."}
              </p>
              <p className="text-sm text-soft">{plan.why}</p>
              {plan.at.length > 0 ? (
                <Button
                  className="justify-self-start"
                  onClick={() => {
                    const k = { x: 0, y: 1, z: 2 }[plan.axis] as 0 | 1 | 2;
                    let next = frame;
                    plan.at.forEach((v, i) => {
                      for (const id of plan.cuts[i] ?? []) {
                        const m = next.members.find((x) => x.id === id);
                        if (!m) continue;
                        const [a, b] = [place(m.from), place(m.to)];
                        const d = b[k] - a[k];
                        const done = splitMember(
                          next,
                          id,
                          ((v - a[k]) / d) * Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]),
                          units,
                        );
                        if (done.ok) next = done.value.frame;
                      }
                    });
                    onEdit(next);
                  }}
                >
                  Split the members there
                </Button>
              ) : null}
            </>
          ) : (
            <p>It fits as it is.</p>
          )}
        </div>
      ) : null}
    </div>
  );
}
