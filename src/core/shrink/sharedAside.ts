import { add3, scale3, sub3, type Vec3 } from "../numeric";

/** A place along a member, with how far aside of its line it is to be laid for it to land on nominal, mm. */
export interface WantedAside {
  /** Along the member, mm. */
  s: number;
  aside: Vec3;
}

/** Places that a straight tube can always be laid through. */
const ALWAYS_STRAIGHT = 2;
const NOWHERE: Vec3 = [0, 0, 0];

/**
 * By how much the places of a member are laid aside of where each would land on nominal, so that all of them do as well as a straight tube
 * can: on the line that lies nearest to what they want, by least squares (closed form). A tube with two places lands on nominal with both; what
 * welds bend, or what leans beyond the joints that hold it, is shared among its places.
 * @returns for each place, mm; nothing for a member that can be laid straight through them all.
 */
export function sharedAside(places: readonly WantedAside[]): Vec3[] {
  if (places.length <= ALWAYS_STRAIGHT) return [];
  const mean = places.reduce((sum, { s }) => sum + s, 0) / places.length;
  const spread = places.reduce((sum, { s }) => sum + (s - mean) ** 2, 0);
  // All in one place: that lands where it wants to.
  if (spread === 0) return [];
  const weighed = (weight: (s: number) => number): Vec3 =>
    places.reduce<Vec3>((sum, { s, aside }) => add3(sum, scale3(aside, weight(s))), NOWHERE);
  const middle = weighed(() => 1 / places.length);
  const slope = weighed((s) => (s - mean) / spread);
  return places.map(({ s, aside }) => sub3(add3(middle, scale3(slope, s - mean)), aside));
}
