import type { ShopLearned } from "../learn";

const count = (n: number, one: string): string => `${n} ${one}${n === 1 ? "" : "s"}`;

/** What a prediction rests on, in words: "3 frames and 2 coupons of this shop, up to 2026-11-29". */
export function learnedWords(learned: ShopLearned | undefined): string {
  if (!learned || learned.frames + learned.coupons === 0) return "tables alone, nothing of this shop yet";
  const of = [
    ...(learned.frames > 0 ? [count(learned.frames, "frame")] : []),
    ...(learned.coupons > 0 ? [count(learned.coupons, "coupon")] : []),
  ];
  return `${of.join(" and ")} of this shop, up to ${learned.asOf.slice(0, 10)}`;
}
