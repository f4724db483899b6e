import { couponAsRead, couponCut, type FrameCoupon, type FrameTeaching, newPlan } from "@/core/job";
import { LEARNABLE, type ShopLearned } from "@/core/learn";
import type { UnitPreference } from "@/core/units";
import { useWorkedOut } from "../job/useWorkedOut";
import { Button } from "../parts/Button";
import { FACTOR_NAMES, narrowsWords } from "./words";

/** Narrowed by less than this is told in one word. */
const HARDLY = 0.97;

type Answer = { ok: false; why: string } | { ok: true; taught: FrameTeaching };

/** One small frame to learn from: what it would tell is worked out before it is cut. */
export function FrameCouponPower({
  kind,
  units,
  learned,
  onStart,
}: {
  kind: FrameCoupon;
  units: UnitPreference;
  learned: ShopLearned;
  onStart: () => void;
}) {
  const known = learned.frames + learned.coupons > 0 ? { learned } : {};
  const plan = { ...newPlan(kind, units), ...known };
  const tape = units === "mm" ? "tape-100" : "tape-inch-32";
  const { state, begin } = useWorkedOut<Answer>(
    `${kind} ${units} ${learned.asOf}`,
    (worker, progress) => worker.frameTeaching(couponAsRead(kind, plan, tape), progress),
    false,
  );
  const answer = state.is === "known" ? state.value : null;
  const narrowed = answer?.ok
    ? LEARNABLE.filter((f) => (answer.taught.narrowedTo[f] ?? 1) < HARDLY).map(
        (f) => `${FACTOR_NAMES[f].toLowerCase()} ${narrowsWords(answer.taught.narrowedTo[f] ?? 1)}`,
      )
    : [];
  return (
    <li className="grid gap-2 border-t border-line py-3" data-testid={`coupon ${kind}`}>
      <p>
        <strong>{kind.replace(/^./, (c) => c.toUpperCase())}</strong>: {couponCut(kind, units)}
      </p>
      <div className="flex flex-wrap gap-3">
        <Button onClick={onStart}>{`Start ${kind === "L corner" ? "an" : "a"} ${kind}`}</Button>
        <Button disabled={state.is === "working"} onClick={() => void begin()}>
          What would it tell?
        </Button>
      </div>
      <p aria-live="polite" className="text-sm">
        {state.is === "working" ? "Working it out…" : null}
        {state.is === "failed" ? "It could not be worked out." : null}
        {answer && !answer.ok ? answer.why : null}
        {answer?.ok
          ? `${kind === "rail" ? "Its bow read by leaves under a straightedge" : "Read to half a millimetre or finer"}, at the tacked gate and cold: ${narrowed.length > 0 ? narrowed.join("; ") : "nothing would be narrowed by much: take a finer instrument"}.`
          : null}
      </p>
    </li>
  );
}
