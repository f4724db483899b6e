"use client";

import { Button } from "../parts/Button";
import { Dialog } from "../parts/Dialog";
import { useJob } from "./JobProvider";

/** Somebody else saved first: what they changed, what both changed, and the choice. */
export function ConflictDialog() {
  const { conflict, store } = useJob("conflict", "store");
  return (
    <Dialog
      open={conflict !== null}
      onClose={null}
      title="Somebody else changed this job meanwhile"
      description="Nothing of yours was saved over it. This is what they changed:"
    >
      {conflict ? (
        <>
          <ul className="mb-4 grid gap-1">
            {conflict.theirs.map((c) => (
              <li key={c.path} className="border-l-2 border-line pl-3">
                <strong>{c.label}</strong>: <span className="fig">{c.from}</span> → <span className="fig">{c.to}</span>
                {conflict.both.includes(c.path) ? <strong className="text-fail"> (you changed this too)</strong> : null}
              </li>
            ))}
          </ul>
          {conflict.renamed.map(({ from, to }) => (
            <p key={from} className="mb-2">
              Both of you added a member <strong>{from}</strong>: kept beside theirs, yours is <strong>{to}</strong>.
            </p>
          ))}
          <div className="flex flex-wrap gap-2">
            <Button look="advise" onClick={() => store.settle("mine")}>
              {conflict.both.length > 0
                ? "Keep theirs, but mine where both changed"
                : "Keep both: lay mine over theirs"}
            </Button>
            <Button onClick={() => store.settle("theirs")}>Drop my edits, take theirs</Button>
          </div>
        </>
      ) : null}
    </Dialog>
  );
}
