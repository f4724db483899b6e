import { alsoPieces, type BarPiece, type Nesting, type Stock } from "../cut";
import { sectionWords } from "../frame";
import { builtOf } from "./built";
import type { Evaluation } from "./evaluate";
import type { Plan } from "./planSchema";

/** What is cut from bars of one section. */
export interface BuyingPart {
  section: string;
  title: string;
  pieces: BarPiece[];
  /** The bars, with the offcuts of this section alone. */
  stock: Stock;
  /** Width of the tube seen at the saw, mm. */
  faceMm: number;
}

/** How they are laid out, or which are longer than any bar; null where it could not be worked out. */
export type Laid = Nesting | { tooLong: string } | null;

/** What a plan needs of bars, section by section: pieces of the frame, and those for something else. */
export function buyingParts(plan: Plan, { cut, structure }: Pick<Evaluation, "cut" | "structure">): BuyingPart[] {
  const { members } = builtOf(plan);
  if (!members) return [];
  const { stock } = plan;
  const first = members.sections[0]?.id ?? "";
  const all: readonly BarPiece[] = [...cut, ...alsoPieces(stock, first)];
  return members.sections.flatMap((s): BuyingPart[] => {
    const pieces = all.filter((p) => p.section === s.id);
    if (pieces.length === 0) return [];
    return [
      {
        section: s.id,
        title: sectionWords(members, s.id),
        pieces,
        stock: { ...stock, offcuts: stock.offcuts.filter((o) => (o.section ?? first) === s.id) },
        faceMm: structure?.members.find((m) => m.section === s.id)?.properties.widthMm ?? 0,
      },
    ];
  });
}
