"use client";

import { Button } from "../parts/Button";
import { useJob } from "./JobProvider";
import { entryWords } from "./store/jobStore";

/** What others changed, what the server would not take: said at the top until it is put away. */
export function Notices() {
  const { othersChanges, refused, device, store } = useJob("othersChanges", "refused", "device", "store");
  const { wentBack } = useJob("wentBack");
  return (
    <>
      {device.state === "keeps" ? null : (
        <p role="alert" className="max-w-prose border-2 border-close bg-well p-3" data-testid="device">
          {device.why}
        </p>
      )}
      {wentBack === null ? null : (
        <div
          role="alert"
          className="flex flex-wrap items-start justify-between gap-3 border-2 border-close bg-well p-3"
        >
          <p className="max-w-prose">
            <strong>The server is older than what this page knew:</strong> it was brought back from a backup. The plan
            as it is here{wentBack > 0 ? ` and ${wentBack} of your entries that it lacked` : ""} are sent again; what
            others entered since has to come from their devices.
          </p>
          <Button onClick={() => store.dismissWentBack()}>Seen</Button>
        </div>
      )}
      {othersChanges.length > 0 ? (
        <div role="status" className="flex flex-wrap items-start justify-between gap-3 border border-edge bg-well p-3">
          <ul>
            {othersChanges.flatMap(({ by, version, changes }) =>
              changes.map((c) => (
                <li key={`${version}/${c.path}`}>
                  {by} changed <strong>{c.label}</strong>: <span className="fig">{c.from}</span> →{" "}
                  <span className="fig">{c.to}</span>
                </li>
              )),
            )}
          </ul>
          <Button onClick={() => store.dismissOthers()}>Seen</Button>
        </div>
      ) : null}
      {refused.length > 0 ? (
        <div role="alert" className="flex flex-wrap items-start justify-between gap-3 border-2 border-fail bg-well p-3">
          <ul className="grid gap-2">
            {refused.map(({ entry, why }) => (
              <li key={entry.id} className="flex flex-wrap items-center gap-2" data-testid="refused">
                <span>
                  <strong>Not taken, kept on this device:</strong> {entryWords(entry)}. {why}
                </span>
                {entry.kind === "reading" ? (
                  <Button onClick={() => store.settleRefused(entry.id, "mend")}>Type it again</Button>
                ) : null}
                <Button onClick={() => store.settleRefused(entry.id, "note")}>Put it into the log</Button>
                <Button onClick={() => store.settleRefused(entry.id, "give up")}>Give it up</Button>
              </li>
            ))}
          </ul>
        </div>
      ) : null}
    </>
  );
}
