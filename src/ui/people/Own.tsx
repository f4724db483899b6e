import { Now } from "../parts/Sheet";
import { SidePage } from "../parts/SidePage";
import { ChangePassword } from "./ChangePassword";

const MAY = {
  welder: "You work on the jobs of the shop; an owner lets people in and out.",
  looks: "You look at the jobs of the shop and change nothing; an owner lets people in and out.",
} as const;

/** One's own page, for who lets nobody in or out. */
export function Own({ name, role }: { name: string; role: keyof typeof MAY }) {
  return (
    <SidePage title="People">
      <Now say={`Signed in as ${name}.`} why={MAY[role]} />
      <ChangePassword />
    </SidePage>
  );
}
