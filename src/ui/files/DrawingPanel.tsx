import { type ReactNode, useEffect, useRef, useState } from "react";
import {
  DRAWING_UNITS,
  type DrawingUnit,
  type DrawnFrame,
  type DrawnSection,
  type FromLines,
  type LinesWish,
} from "@/core/frame";
import { formatLength, type Result, type UnitPreference } from "@/core/units";
import type { DrawingHeld, Files } from "@/workers/files";
import { FrameDrawing, useScene } from "../drawing";
import { Choice } from "../parts/Choice";
import { FieldMessage } from "../parts/Field";
import { SelectField } from "../parts/SelectField";
import { Tick } from "../parts/Tick";

const UNIT_WORDS: Record<DrawingUnit, string> = {
  mm: "millimetres",
  cm: "centimetres",
  m: "metres",
  in: "inches",
  ft: "feet",
};
const WHY: Record<DrawingHeld["unit"]["why"], string> = {
  said: "The file says so.",
  "said, but odd": "The file says another one, in which it would be no frame's size. Check it.",
  "by its size": "The file does not say: this is what makes it a frame's size. Check it.",
};
/** More layers than these are told by their number. */
const MOST_LAYERS = 40;
const MOST_TOLD = 12;

/** The frame of a drawing as it would be taken; asked anew whenever the wish changes. */
function useFrame(
  files: () => Files | null,
  wish: LinesWish,
  section: DrawnSection,
  units: UnitPreference,
): Result<FromLines> | null {
  const key = JSON.stringify([wish, section, units]);
  const [made, setMade] = useState<{ key: string; result: Result<FromLines> } | null>(null);
  const asked = useRef({ files, wish, section, units });
  useEffect(() => {
    asked.current = { files, wish, section, units };
  });
  useEffect(() => {
    let gone = false;
    const { files: worker, wish: what, section: of, units: as } = asked.current;
    worker()
      ?.frame(what, of, as)
      .then((result) => {
        if (!gone) setMade({ key, result });
      })
      .catch(() => undefined);
    return () => {
      gone = true;
    };
  }, [key]);
  return made?.key === key ? made.result : null;
}

/** What a frame of a drawing is, in few words. */
function Made({ made, units }: { made: FromLines; units: UnitPreference }) {
  const scene = useScene(made.structure);
  const { structure, frame, near, clashes, told } = made;
  const say = (mm: number): string => formatLength(mm, units, { trim: true }).text;
  const [x, y, z] = structure.high.map((v, k) => v - (structure.low[k] ?? 0)) as [number, number, number];
  return (
    <>
      <p className="text-lg font-semibold" data-testid="drawing-made">
        {frame.members.length} {frame.members.length === 1 ? "member" : "members"}, {structure.joints.length}{" "}
        {structure.joints.length === 1 ? "joint" : "joints"}, {say(x)} × {say(y)}
        {z > 1.5 * (structure.members[0]?.properties.heightMm ?? 0) ? ` × ${say(z)}` : ""} over all
      </p>
      <FrameDrawing scene={scene} units={units} label="The frame as it would be taken" maxHeight={260} />
      <ul className="grid gap-1 text-sm">
        {told.map((t) => (
          <li key={t}>{t}</li>
        ))}
        {near.length > 0 ? (
          <li className="text-close">
            {near.length === 1 ? "One end stands" : `${near.length} ends stand`} a little short of another member:{" "}
            {near
              .slice(0, 6)
              .map((n) => `${n.member} of ${n.to}`)
              .join(", ")}
            . Close {near.length === 1 ? "it" : "them"} on the Frame stage, where each is shown.
          </li>
        ) : null}
        {clashes.length > 0 ? (
          <li className="text-close">
            {clashes
              .slice(0, 6)
              .map((c) => `${c.a} and ${c.b}`)
              .join("; ")}{" "}
            lie in each other: mend that on the Frame stage.
          </li>
        ) : null}
      </ul>
    </>
  );
}

/** A drawing of another program: what of it is taken, in which unit, and what it becomes. */
export function DrawingPanel({
  held,
  files,
  section,
  units,
  children,
}: {
  held: DrawingHeld;
  files: () => Files | null;
  /** What its members will be made of. */
  section: DrawnSection;
  units: UnitPreference;
  /** What can be done with it; null while there is nothing to take. */
  children: (frame: DrawnFrame | null) => ReactNode;
}) {
  const [wish, setWish] = useState<LinesWish>(held.usual);
  const made = useFrame(files, wish, section, units);
  const layers = held.layers.slice(0, MOST_LAYERS);
  return (
    <>
      {made?.ok ? (
        <Made made={made.value} units={units} />
      ) : made ? (
        <FieldMessage severity="error">{made.message}</FieldMessage>
      ) : (
        <p className="text-soft">Finding members and joints…</p>
      )}
      <div className="grid gap-4 sm:grid-cols-2">
        <SelectField
          label="The drawing is in"
          hint={wish.unit === held.unit.unit ? WHY[held.unit.why] : ""}
          value={wish.unit}
          options={(Object.keys(DRAWING_UNITS) as DrawingUnit[]).map((u) => [u, UNIT_WORDS[u]] as const)}
          onChange={(unit) => setWish({ ...wish, unit })}
        />
        <Choice
          label="Its lines are"
          value={wish.means}
          options={[
            ["centre", "centre lines"],
            ["outline", "outlines of tubes"],
          ]}
          onChange={(means) => setWish({ ...wish, means })}
        />
      </div>
      {held.layers.length > 1 ? (
        <fieldset className="grid gap-1">
          <legend className="text-sm font-semibold">Layers that are taken</legend>
          <div className="grid max-h-48 overflow-auto sm:grid-cols-2">
            {layers.map(({ name, lines }) => (
              <Tick
                key={name}
                checked={wish.layers.includes(name)}
                onChange={(on) =>
                  setWish({ ...wish, layers: on ? [...wish.layers, name] : wish.layers.filter((l) => l !== name) })
                }
              >
                <span className="break-all">{name.slice(0, 60)}</span> <span className="text-soft">{lines}</span>
              </Tick>
            ))}
          </div>
          {held.layers.length > MOST_LAYERS ? (
            <p className="text-sm text-soft">And {held.layers.length - MOST_LAYERS} more with fewer lines.</p>
          ) : null}
        </fieldset>
      ) : null}
      {held.unread.length > 0 ? (
        <p className="text-sm text-soft" data-testid="unread">
          Not taken, or not as it is: {held.unread.slice(0, MOST_TOLD).join("; ")}
          {held.unread.length > MOST_TOLD ? "; and more" : ""}.
        </p>
      ) : null}
      {children(made?.ok ? made.value.frame : null)}
    </>
  );
}
