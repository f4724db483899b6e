import { cholesky, matVec, type Rows, type Sparse, solveCholesky, sparseAdd, sparseDot, zeros } from "../numeric";
import { putOn, slipping, takenOff } from "./contacts";
import {
  copiedState,
  fittedState,
  LINES,
  putBack,
  rememberSeams,
  SEAMS,
  seamsFrom,
  setJoints,
  setState,
  shareAnew,
} from "./heldState";
import { type Answers, Holding, type OwnWish } from "./holding";
import type { CompiledLoads, JointStiffness } from "./loadActions";
import type { MechanicalModel } from "./model";
import { columnOf } from "./ownUnknowns";
import { springEntries } from "./springs";
import { within } from "./within";

/** What the plain path gives: the movement of every freedom after each step, mm and rad. */
interface PlainRun {
  /** One row per step. */
  movements: Float64Array[];
  /** Tension in each line, four per joint, N, after the last step. */
  tensions: Float64Array;
  /** What each place of each joint and post presses with after the last step, N. */
  pressed: Float64Array;
  /** Force of each spring that is no joint when it was let go (its rows), N. */
  released: { step: number; spring: number; force: Float64Array }[];
}

/**
 * The readable reference: the whole stiffness matrix is kept and factored anew after every change. The condensed path must
 * agree with it to 1e-9.
 * @param limited whether beads and tacks yield.
 */
export function plainRun(programme: CompiledLoads, limited = true): PlainRun {
  const { model, springs, posts, loads, actions, stepOf } = programme;
  const n = model.freedoms;
  const k = startingStiffness(model);
  let factor: Rows | null = null;
  const solve = (b: Float64Array): Float64Array => {
    factor ??= cholesky(k);
    if (!factor) throw new Error("The frame is not held together: its stiffness is singular.");
    const x = Float64Array.from(solveCholesky(factor, b));
    // Once more on what is left: stiff joints beside loose contact cost digits.
    const left = b.map((v, i) => v - k[i].reduce((sum, kij, j) => sum + kij * x[j], 0));
    const more = solveCholesky(factor, left);
    return x.map((v, i) => v + more[i]);
  };
  const addSpring = (rows: readonly Sparse[], matrix: Float64Array, sign: number) => {
    for (const [i, j, v] of springEntries(rows, matrix)) addTo(k, i, j, sign * v);
    factor = null;
  };
  const spread = (rows: readonly Sparse[], f: Float64Array): Float64Array => {
    const b = new Float64Array(n);
    rows.forEach((row, i) => {
      sparseAdd(b, row, f[i]);
    });
    return b;
  };
  const u = new Float64Array(n);
  const holders = model.joints.length + posts;
  const gaps = Float64Array.from({ length: holders }, (_, j) => model.joints[j]?.gapMm ?? 0);
  const fit = fittedState(holders, gaps);
  const holding = new Holding(holders, 1, limited);
  const { state } = holding;
  setState(state, fit);
  const joints: (JointStiffness | null)[] = new Array<JointStiffness | null>(holders).fill(null);
  const kinkColumns: number[] = new Array<number>(holders).fill(-1);
  /** Load of a mm of closing of a line: push on its joint, kink of its chord. */
  const closing = (spring: number, line: number): Float64Array => {
    const joint = joints[spring] as JointStiffness;
    return pushing(spring, columnOf(joint.push, line), kinkColumns[spring], columnOf(joint.kink, line));
  };
  const pushing = (spring: number, push: Float64Array, kinkColumn: number, kink: Float64Array): Float64Array => {
    const b = spread(springs[spring].rows, push);
    if (kinkColumn >= 0)
      kink.forEach((v, way) => {
        sparseAdd(b, loads[kinkColumn + way], v);
      });
    return b;
  };
  /** How far every joint moves when the nodes move so. */
  const jointsMoved = (by: Float64Array): Float64Array =>
    Float64Array.from(springs.slice(0, holders).flatMap((s) => s.rows.map((row) => sparseDot(row, by))));
  /** Force that the frame puts through each joint, six each. */
  const through = new Float64Array(6 * holders);
  /** What pushes on a joint by itself is not put through it by the frame. */
  const pushesItself = (spring: number, push: Float64Array, size: number) =>
    push.forEach((v, i) => {
      through[6 * spring + i] = through[6 * spring + i] - size * v;
    });
  const move = (b: Float64Array, wish: OwnWish | null = null) => {
    const by = solve(b);
    if (limited || posts > 0 || model.joints.some((j) => j.gapMm !== null)) {
      holding.begin(joints);
      const answers: Answers = {
        reach: (spring, push, from, into) =>
          into.set(jointsMoved(solve(spread(springs[spring].rows, push.subarray(from, from + 6))))),
      };
      const brought = [{ forces: holding.forces(jointsMoved(by), wish), sizes: Float64Array.of(1) }];
      holding.settle(brought, wish?.spring ?? -1, Float64Array.of(1), answers, ({ count, unknown, by: gained }) => {
        for (let q = 0; q < count; q++) {
          const { spring, line, seam, push } = holding.unknown(unknown[q]);
          pushesItself(spring, push, gained[q]);
          const unit = solve(seam ? spread(springs[spring].rows, push) : closing(spring, line));
          unit.forEach((v, i) => {
            by[i] = by[i] + gained[q] * v;
          });
        }
      });
    }
    by.forEach((v, i) => {
      u[i] = u[i] + v;
    });
    carryThrough(by);
  };
  /** What the frame puts through its joints when it moves so. */
  const carryThrough = (by: Float64Array) => {
    const moved = jointsMoved(by);
    joints.forEach((joint, j) => {
      if (!joint || j >= model.joints.length) return;
      const gained = joint.k.map((v, i) => v - model.joints[j].contact[i]);
      matVec(gained, moved.subarray(6 * j, 6 * j + 6), 6, 6, new Float64Array(6)).forEach((v, i) => {
        through[6 * j + i] = through[6 * j + i] + v;
      });
    });
  };

  /** How posts stand before anything shrinks. */
  const rememberPosts = () => rememberSeams(fit, state, holders, model.joints.length);
  const attached = new Map<number, { matrix: Float64Array; reference: Float64Array }>();
  /** Loads on members so far. */
  const laid = new Float64Array(loads.length);
  /** Takes all that pushes on a part alone off it by so much; by the freedoms of its nodes. */
  const putPartBack = ({ share, holds }: { share: number; holds: boolean }, nodes: ReadonlySet<number>) => {
    const part = within(programme, nodes);
    const pushed = Float64Array.from(k, (row) => row.reduce((sum, kij, j) => sum + kij * u[j], 0));
    // What pushes on the rest too, and what the part touches, stays.
    loads.forEach((load, l) => {
      if (!part.loads.includes(l)) sparseAdd(pushed, load, -laid[l]);
    });
    springs.slice(model.joints.length, holders).forEach(({ rows }, post) => {
      rows.forEach((row, at) => {
        sparseAdd(pushed, row, -state.pressed[SEAMS * (model.joints.length + post) + at]);
      });
    });
    const by = solve(pushed.map((v, i) => (nodes.has(Math.floor(i / 6)) ? (share - 1) * v : 0)));
    by.forEach((v, i) => {
      u[i] = u[i] + v;
    });
    const before = copiedState(state);
    holding.begin(joints);
    holding.forces(jointsMoved(by), null).forEach((v, i) => {
      state.held[i] = state.held[i] + v;
    });
    const back = copiedState(before);
    if (!holds) putBack(back, fit, holders, share);
    setJoints(state, back, holders, part.springs);
    const throughBefore = through.slice();
    carryThrough(by);
    for (const j of part.springs.filter((s) => s < model.joints.length))
      for (let i = 6 * j; i < 6 * j + 6; i++) through[i] = holds ? throughBefore[i] : 0;
    for (const [spring, on] of attached)
      if (part.springs.includes(spring))
        on.reference = Float64Array.from(springs[spring].rows, (row) => sparseDot(row, u));
  };
  const movements: Float64Array[] = programme.steps.map(() => new Float64Array(0));
  const released: PlainRun["released"] = [];
  actions.forEach((action, index) => {
    const step = stepOf[index];
    switch (action.kind) {
      case "weld": {
        const { spring, line, joint, heat, closingMm } = action;
        if (action.delta) addSpring(springs[spring].rows, action.delta, 1);
        shareAnew(state, holders, spring, joints[spring], joint, through.subarray(6 * spring, 6 * spring + 6));
        joints[spring] = joint;
        kinkColumns[spring] = action.kinkColumn;
        if (!action.tack) state.held[LINES * spring + line] = 0;
        const b = closing(spring, line).map((v) => closingMm * v);
        pushesItself(spring, columnOf(joint.push, line), closingMm);
        if (heat) pushesItself(spring, heat.push, heat.mm);
        if (heat)
          pushing(spring, heat.push, action.kinkColumn, heat.kink).forEach((v, i) => {
            b[i] = b[i] + heat.mm * v;
          });
        move(b, {
          spring,
          closing: { line, mm: closingMm },
          ...(heat ? { free: heat.free.map((v) => heat.mm * v) } : {}),
        });
        break;
      }
      case "load": {
        const b = new Float64Array(n);
        sparseAdd(b, loads[action.column], action.size);
        laid[action.column] = laid[action.column] + action.size;
        move(b);
        rememberPosts();
        break;
      }
      case "attach": {
        const { rows } = springs[action.spring];
        const { matrix, toMm, byMm } = action;
        const here = Float64Array.from(rows, (row) => sparseDot(row, u));
        const reference = here.map((v) => (toMm ?? v) + byMm);
        addSpring(rows, matrix, 1);
        attached.set(action.spring, { matrix, reference });
        const pull = reference.map((v, i) => v - here[i]);
        if (pull.some((v) => v !== 0))
          move(spread(rows, matVec(matrix, pull, rows.length, rows.length, new Float64Array(rows.length))));
        break;
      }
      case "detach": {
        const { rows } = springs[action.spring];
        const on = attached.get(action.spring);
        if (!on) break;
        attached.delete(action.spring);
        const stretch = Float64Array.from(rows, (row, i) => sparseDot(row, u) - on.reference[i]);
        const force = matVec(on.matrix, stretch, rows.length, rows.length, new Float64Array(rows.length));
        released.push({ step, spring: action.spring, force });
        addSpring(rows, on.matrix, -1);
        move(spread(rows, force));
        break;
      }
      case "touch": {
        joints[action.spring] = putOn(joints[action.spring], action.at, action.givesMmPerN);
        state.held[seamsFrom(holders, action.spring) + action.at] = -action.gapMm;
        state.pressed[SEAMS * action.spring + action.at] = 0;
        move(new Float64Array(n));
        rememberPosts();
        break;
      }
      case "part": {
        const place = SEAMS * action.spring + action.at;
        joints[action.spring] = takenOff(joints[action.spring], action.at);
        const b = new Float64Array(n);
        sparseAdd(b, springs[action.spring].rows[action.at], -state.pressed[place]);
        state.pressed[place] = 0;
        move(b);
        break;
      }
      case "float":
        joints[action.spring] = slipping(model.holdNPerMm);
        break;
      case "scale":
        if (action.of) {
          putPartBack(action, action.of);
          break;
        }
        u.forEach((v, i) => {
          u[i] = action.share * v;
        });
        if (!action.holds) {
          putBack(state, fit, holders, action.share);
          through.fill(0);
        }
        for (const [spring, on] of attached)
          on.reference = Float64Array.from(springs[spring].rows, (row) => sparseDot(row, u));
        break;
      case "nothing":
        break;
    }
    movements[step] = u.slice();
  });
  return { movements, tensions: state.held.slice(0, LINES * holders), pressed: state.pressed, released };
}

const addTo = (k: Rows, i: number, j: number, v: number): void => {
  const row = k[i];
  row[j] = row[j] + v;
};

/** Members, supports, contact of every joint, and the hold of a free frame. */
export function startingStiffness(model: MechanicalModel): Rows {
  const n = model.freedoms;
  const k = zeros(n, n);
  for (const [i, j, v] of model.entries) addTo(k, i, j, v);
  for (const joint of model.joints) for (const [i, j, v] of springEntries(joint.rows, joint.contact)) addTo(k, i, j, v);
  for (const q of model.hold)
    for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) addTo(k, i, j, model.holdNPerMm * q[i] * q[j]);
  return k;
}
