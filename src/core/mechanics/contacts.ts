import type { Sparse } from "../numeric";
import { LINES, SEAMS } from "./heldState";
import type { JointStiffness, Seam } from "./loadActions";

/** Contacts that share a post: a spring of six ways, one for each. */
export const CONTACTS_A_POST = 6;

/** A contact's place among the springs: the post, counted among all posts, and which of its ways. */
export interface PostPlace {
  post: number;
  at: number;
}

const NO_ROW: Sparse = { at: [], value: [] };

/** Posts for contacts, six to each: rows that tell by how much each opens. */
export function postsOf(rows: readonly Sparse[]): Sparse[][] {
  const posts: Sparse[][] = [];
  for (let i = 0; i < rows.length; i += CONTACTS_A_POST)
    posts.push(Array.from({ length: CONTACTS_A_POST }, (_, k) => rows[i + k] ?? NO_ROW));
  return posts;
}

/** Where a contact stands, by its place among all. */
export const placeOfContact = (index: number): PostPlace => ({
  post: Math.floor(index / CONTACTS_A_POST),
  at: index % CONTACTS_A_POST,
});

/** A way of a post that pushes and never pulls. @param givesMmPerN of what it stands on. */
function contact(at: number, givesMmPerN: number): Seam {
  const push = new Float64Array(6);
  push[at] = 1;
  const gives = new Float64Array(SEAMS);
  gives[at] = givesMmPerN;
  return { at, push, closed: new Float64Array(LINES), gives };
}

/** How many rigid motions a post lets slip. */
const MOTIONS_A_POST = 3;

/** Posts by which a frame that contacts carry is let go of its hold: rows of its rigid motions. */
export function slipsOf(hold: readonly Float64Array[]): Sparse[][] {
  const rows = hold.map((q): Sparse => {
    const at = [...q.keys()].filter((i) => q[i] !== 0);
    return { at, value: at.map((i) => q[i]) };
  });
  return [0, MOTIONS_A_POST].map((from) =>
    Array.from({ length: CONTACTS_A_POST }, (_, k) => (k < MOTIONS_A_POST ? (rows[from + k] ?? NO_ROW) : NO_ROW)),
  );
}

/** A post whose hold slips at no force. @param holdNPerMm stiffness of the hold in each motion. */
export function slipping(holdNPerMm: number): JointStiffness {
  const post = postWith([]);
  const lines = Array.from({ length: MOTIONS_A_POST }, (_, line) => ({ line, tack: true, yieldN: 0 }));
  for (const { line } of lines) {
    post.push[LINES * line + line] = holdNPerMm;
    post.locked[LINES * line + line] = holdNPerMm;
  }
  return { ...post, lines };
}

/** A post as the equations of what holds see it: no welds, and seams where contacts are put on. */
const postWith = (seams: readonly Seam[]): JointStiffness => ({
  k: new Float64Array(36),
  welds: new Float64Array(36),
  push: new Float64Array(24),
  locked: new Float64Array(16),
  free: new Float64Array(24),
  kink: new Float64Array(24),
  lines: [],
  seams,
});

/** A post with one contact more. */
export const putOn = (post: JointStiffness | null, at: number, givesMmPerN: number): JointStiffness =>
  postWith([...(post?.seams ?? []).filter((s) => s.at !== at), contact(at, givesMmPerN)]);

/** A post with one contact less; null with none left. */
export function takenOff(post: JointStiffness | null, at: number): JointStiffness | null {
  const left = (post?.seams ?? []).filter((s) => s.at !== at);
  return left.length > 0 ? postWith(left) : null;
}
