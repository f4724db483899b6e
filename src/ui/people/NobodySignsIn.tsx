import { Now } from "../parts/Sheet";
import { SidePage } from "../parts/SidePage";

/** What is said where the program runs for one person on one machine. */
export function NobodySignsIn() {
  return (
    <SidePage title="People">
      <Now
        say="Only this machine gets in, and nobody signs in."
        why="That is right for one person on a machine of their own: no other device reaches this address."
      />
      <p className="max-w-prose">
        For phones at the bench and others of the shop, stop it and start <code className="fig">script/serve</code>{" "}
        instead. It listens on the shop's network with encryption, prints an invitation for its first owner, and this
        page then lets people in and out. Jobs stay as they are.
      </p>
    </SidePage>
  );
}
