import { isHollow, type Structure } from "@/core/frame";

/** How pieces are laid into the frame: where the seam goes and which way the crown points, said once for those alike. */
export function Laying({ structure, members }: { structure: Structure; members: readonly string[] }) {
  const ways = new Map<string, string[]>();
  for (const m of structure.members.filter((x) => members.includes(x.id))) {
    // A section that is rolled open has no seam.
    const way = `${isHollow(m.shape) ? `seam ${m.seam}, ` : ""}crown ${m.crown}`;
    ways.set(way, [...(ways.get(way) ?? []), m.id]);
  }
  const [only] = ways.keys();
  return (
    <p className="text-sm text-soft">
      Lay it in with {ways.size === 1 ? only : [...ways].map(([way, ids]) => `${ids.join(", ")}: ${way}`).join("; ")}.
    </p>
  );
}
