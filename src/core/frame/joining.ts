import type { Structure } from "./structure";

/** One step of putting sub-assemblies together. */
interface Joining {
  id: string;
  name: string;
  members: string[];
  massKg: number;
  /** Joints inside it, welded before it is joined. */
  own: string[];
  /** Joints that join it to what is already together. */
  toRest: string[];
  warning: string | null;
}

/** Sub-assemblies in their order, with the joints of each; members in none come last, one by one fitted on. */
export function joiningOrder(structure: Structure): Joining[] {
  const grouped = new Set(structure.groups.flatMap((g) => g.members));
  const rest = structure.members.filter((m) => !grouped.has(m.id)).map((m) => m.id);
  const groups = [
    ...structure.groups,
    ...(rest.length > 0 && structure.groups.length > 0 ? [{ id: "", name: "what is left", members: rest }] : []),
  ];
  const together = new Set<string>();
  return groups.map((g, i) => {
    const inside = new Set(g.members.filter((m) => structure.members.some((x) => x.id === m)));
    const own = structure.joints.filter((j) => inside.has(j.a) && inside.has(j.b)).map((j) => j.id);
    const toRest = structure.joints
      .filter((j) => (inside.has(j.a) && together.has(j.b)) || (inside.has(j.b) && together.has(j.a)))
      .map((j) => j.id);
    for (const m of inside) together.add(m);
    return {
      id: g.id,
      name: g.name || g.id,
      members: [...inside],
      massKg: structure.members.reduce((s, m) => s + (inside.has(m.id) ? m.massKg : 0), 0),
      own,
      toRest,
      warning:
        i > 0 && toRest.length === 0 && inside.size > 0
          ? `${g.name || g.id} touches nothing that is together by then: move it later in the order.`
          : null,
    };
  });
}
