import { finishesFor, holeAdvice } from "../cut";
import { isHollow, MATERIALS, type Structure } from "../frame";
import { plainLength, rangeWords, type UnitPreference } from "../units";
import type { Plan } from "./planSchema";
import { FINISH_STEPS, type FinishStepName, type TickId, tickKey } from "./tickId";

/** One thing that is done to a frame after its cold check. */
export interface FinishStep {
  id: TickId;
  key: string;
  say: string;
  why: string;
  /** What can hurt somebody, or spoil the frame; none where nothing does. */
  caution: string | null;
  /** About how long one is at it, minutes (own judgement). */
  minutes: number;
  /** Who may do it, where that is not whoever welds. */
  who: string | null;
}

/** Minutes for what goes by the joint, the face, the hole, the square metre. Source: own judgement. */
const MINUTES = { perJoint: 1, perFace: 3, perHole: 2, perM2: 10, perPart: 6 } as const;
const MM2_PER_M2 = 1e6;
/** Wall up to which a dip distorts a frame easily, mm (common practice, no source). */
const THIN_MM = 3;
/** Alloys that are hardened by heat, and are soft beside a weld until they are so again. */
const HEAT_TREATED = ["aluminium 6061"] as const;

const STAINLESS = ["stainless 304", "stainless 316"] as const;

const TO_BARE = "Whole beads are stronger than ground ones: leave every bead that nothing must lie on.";

/**
 * What is done to a frame after it was checked, in order, by what comes after: what is ground, cleaned, coated, fitted; for hardened alloys
 * the route through soft, straight and hard again. Common practice, no source.
 */
export function finishSteps(plan: Plan, structure: Structure): FinishStep[] {
  const { units, finish } = plan;
  const steps: FinishStep[] = [];
  const put = (
    step: FinishStepName,
    s: Omit<FinishStep, "id" | "key" | "caution" | "who"> & Partial<FinishStep>,
  ): void => {
    const id: TickId = { do: "finish", step };
    steps.push({ caution: null, who: null, ...s, id, key: tickKey(id) });
  };
  const flush = structure.joints.flatMap((j) => j.faces.filter((f) => f.care === "grind flush").map((f) => ({ j, f })));
  const walls = structure.members.map((m) => m.properties.wallMm);
  const treated = structure.members.some((m) => HEAT_TREATED.some((a) => a === m.material));
  const rusts = structure.members.some((m) => MATERIALS[m.material].rusts);
  const isStainless = structure.members.some((m) => STAINLESS.some((s) => s === m.material));
  const area = structure.surfaceMm2 / MM2_PER_M2;

  put("spatter", {
    say: "Take spatter off",
    why:
      finish === "bare"
        ? rusts
          ? "It cuts hands and holds rust."
          : "It cuts hands and holds dirt."
        : "Nothing that lies on it holds: the coat goes with the first knock.",
    caution: "Chisel or scraper before the grinder; eyes covered.",
    minutes: Math.ceil(MINUTES.perJoint * structure.joints.length),
  });
  if (treated) heatRoute(put);
  if (flush.length > 0) {
    put("grind", {
      say: `Grind flush: ${flush.map(({ j, f }) => `${j.id} ${f.line}`).join(", ")}`,
      why: "The drawing asks for it. What is ground off pulled: the frame moves a little, and is read again.",
      caution:
        "Guard on, disc rated for the speed, sparks away from people and from what burns. Not into the tube's wall.",
      minutes: Math.ceil(MINUTES.perFace * flush.length),
    });
    put("read again", {
      say: "Read the frame again at the cold gate",
      why: "Ground faces gave back some of their pull: what was read before is no longer so.",
      minutes: 8,
    });
  }
  const left = structure.joints.flatMap((j) => j.faces.filter((f) => f.bead)).length - flush.length;
  if (left > 0)
    put("leave", {
      say:
        flush.length > 0 ? `Leave the other ${left} faces as they were welded` : "Leave all beads as they were welded",
      why: TO_BARE,
      minutes: 0,
    });
  const holes = holeAdvice(structure, finish);
  const count = holes.reduce((s, h) => s + h.count, 0);
  if (finish === "zinc dip" && !finishesFor(structure).includes(finish))
    put("tank", {
      say: "Choose another finish: this frame is not to be dipped in zinc",
      why: "A bath of zinc at 450 °C eats aluminium and may crack stainless steel; it takes on steel that rusts.",
      minutes: 0,
    });
  else if (finish === "zinc dip") zinc(put, { structure, units, count, thin: Math.min(...walls) < THIN_MM });
  else if (count > 0)
    put("vents", {
      say: `Close ${count === 1 ? "the vent" : `${count} vents`} where water would stand, leave a drain at the lowest point`,
      why: "A tube that is shut holds the wet that gets in; one that is open below dries.",
      minutes: Math.ceil(MINUTES.perHole * count),
    });
  if (finish === "bare" && isStainless)
    put("clean", {
      say: "Take the heat tint off beside every weld: pickling paste, or a stainless brush of its own",
      why: "Where it is left blue or brown it is stainless no more; dust of common steel rusts on it.",
      caution: "Pickling paste is acid: face shield, gloves, air, by its sheet; rinse where the water may go.",
      minutes: Math.ceil(MINUTES.perFace * structure.joints.length),
    });
  if (finish === "paint" || finish === "powder") {
    put("clean", {
      say: "Brush or blast it, then wipe it with a solvent that suits the coat, and let it dry",
      why: "Anti-spatter, oil and slag let go of any coat. What was marked with a paint pen shows through.",
      caution:
        "Solvent away from sparks and hot steel; gloves, air. A chlorinated one never comes near a weld: in the arc it makes poison gas.",
      minutes: Math.ceil(MINUTES.perM2 * area),
    });
    put(finish, {
      say:
        finish === "paint"
          ? `Prime within the day${rusts ? "" : " with what is made for this metal"}, edges and beads first by brush, then paint`
          : "Powder and bake it; threads, feet and earth points masked, one place bare to hang it by",
      why:
        finish === "paint"
          ? `${rusts ? "Bare steel rusts overnight" : "A usual primer lets go of it"}, and a coat is thinnest on edges.`
          : "It is baked at about 200 °C: a frame does not move by that, plastic and grease in it do.",
      caution:
        finish === "paint"
          ? "Mask, air, no flame. Isocyanate paints only with supplied air."
          : treated
            ? "That is hotter than the alloy was aged at, and takes strength: ask whoever hardens it for a powder that bakes cooler."
            : null,
      minutes: Math.ceil(2 * MINUTES.perM2 * area),
      who: finish === "powder" ? "a coater with an oven that it fits into" : null,
    });
  }
  const named = new Map<string, number>();
  const { frame } = plan;
  if (frame.by === "members") for (const p of frame.drawn.parts) named.set(p.kind, (named.get(p.kind) ?? 0) + 1);
  if (named.size > 0)
    put("parts", {
      say: `Fit what was left off: ${[...named].map(([kind, n]) => (n > 1 ? `${n} × ${kind}` : kind)).join(", ")}`,
      why: "What is screwed or pressed in goes in after the coat, what is welded before it.",
      minutes: MINUTES.perPart * [...named.values()].reduce((s, n) => s + n, 0),
    });
  const open = structure.members.filter(
    (m) => isHollow(m.shape) && (["from", "to"] as const).some((end) => m.ends[end].hollow === "open"),
  );
  if (open.length > 0)
    put("caps", {
      say: `Cap the open ends: ${open.map((m) => m.id).join(", ")}`,
      why: "Water and wasps. A cap that is welded on shuts the tube: it wants its vent then.",
      minutes: Math.ceil(MINUTES.perHole * open.length),
    });
  if (plan.drill.length > 0)
    put("holes", {
      say: `Check the ${plan.drill.length} drilled ${plan.drill.length === 1 ? "hole" : "holes"} against what it is bolted to, as built`,
      why: `Sides have shrunk since they were drilled. From ${rangeWords(12, 13, units)} up a pilot a little larger than the drill's web first; slot one of a pair rather than force both.`,
      minutes: Math.ceil(MINUTES.perHole * plan.drill.length),
    });
  put("stand", {
    say: "Put it where it belongs; what stands there: feet down, level, anchors last",
    why: "A frame that is pulled down onto an uneven floor by its anchors is bent by them: shim first, then tighten.",
    caution: structure.massKg > 25 ? "It is heavy: two people, or a hoist with slings that are marked for it." : null,
    minutes: 15,
  });
  return steps.sort((a, b) => order(a) - order(b));
}

const order = ({ id }: FinishStep): number => (id.do === "finish" ? FINISH_STEPS.indexOf(id.step) : -1);

type Put = (step: FinishStepName, s: Omit<FinishStep, "id" | "key" | "caution" | "who"> & Partial<FinishStep>) => void;

/** An alloy that was hardened by heat: soft beside every weld, until it is hardened again. */
function heatRoute(put: Put): void {
  put("soft", {
    say: "Have it made soft: solution heat, quenched",
    why: "Beside the welds it is half soft already, elsewhere hard: straightened so it would kink at the welds.",
    caution: "It comes out of the quench bent: that is what the next step is for.",
    minutes: 0,
    who: "a heat treater with a furnace that it fits into, by the alloy's own procedure",
  });
  put("align", {
    say: "Straighten it within hours, while it is soft; read it as at the cold gate",
    why: "It hardens by itself as it lies: on the first day it bends, on the second it cracks. Nothing that is hard is bent.",
    minutes: 40,
    who: "whoever welded it, with whoever answers for what it carries",
  });
  put("harden", {
    say: "Have it hardened: aged at about 160 to 180 °C for hours",
    why: "Only then it has the strength that it was reckoned with. From then on no heat and no bending.",
    minutes: 0,
    who: "the same heat treater; ask for the hardness that was read beside a weld",
  });
  put("proof", {
    say: "Read it once more, and look at every weld",
    why: "It may have moved a little as it hardened, and a crack from bending shows now.",
    caution: "What carries people or lifts is looked at by whoever may pass it.",
    minutes: 20,
    who: null,
  });
}

/** Hot-dip zinc: what the bath does to a frame, and what the frame may do to the bath. */
function zinc(
  put: Put,
  { structure, units, count, thin }: { structure: Structure; units: UnitPreference; count: number; thin: boolean },
): void {
  const size = [0, 1, 2].map((i) => structure.high[i as 0] - structure.low[i as 0]).sort((a, b) => b - a);
  const lengthWords = (mm: number | undefined): string => plainLength(Math.round(mm ?? 0), units);
  put("tank", {
    say: `Ask whether ${lengthWords(size[0])} × ${lengthWords(size[1])} × ${lengthWords(size[2])} fits the bath in one dip`,
    why: "Dipped twice, end over end, one end is hot while the other is cold: that bends a frame more than all its welds.",
    minutes: 5,
    who: "the galvanizer",
  });
  put("marks", {
    say: "Take paint marks and anti-spatter off, all of them",
    why: "Zinc takes on bare steel alone: every mark stays black. Mark with wire tags.",
    caution: "Brush or burn off outdoors; solvents dry before anything sparks.",
    minutes: 10,
  });
  put("vents", {
    say: `Hold the ${count} vent and drain holes against the frame as built: through, at both ends, not blocked by a bead`,
    why: "Zinc must run in and out, and air out.",
    caution: "Never dip a sealed tube: it bursts in the bath.",
    minutes: Math.ceil(MINUTES.perHole * count),
  });
  put("dip", {
    say: "Have it dipped, and read it again when it is cold",
    why: `At 450 °C it lets go of some of what its welds hold: ${thin ? "thin walls beside thick ones move most" : "walls of one thickness move least"}. It comes back a little thicker all over: holes and threads are tighter.`,
    minutes: 0,
    who: "the galvanizer",
  });
  put("after dip", {
    say: "Run threads and holes through again, file drips off",
    why: `Each face carries about ${units === "mm" ? "0.1 mm" : "0.004 in"} of zinc.`,
    caution: "Later heat on zinc makes poison fume: weld nothing to it without stripping it back.",
    minutes: 10,
  });
}
