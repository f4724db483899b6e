"use client";

import { type FormEvent, useState } from "react";
import { deviceHere } from "../job/store/device";
import { forgetOldJobs } from "../job/store/keptJobs";
import { Button } from "../parts/Button";
import { FieldMessage } from "../parts/Field";
import { Section } from "../parts/Sheet";
import { TextField } from "../parts/TextField";
import { type Answer, send } from "./send";

/** A new password for oneself, and the way out. */
export function ChangePassword() {
  const [old, setOld] = useState("");
  const [password, setPassword] = useState("");
  const [answer, setAnswer] = useState<Answer<null> | null>(null);
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    const now = await send<null>("PUT", "/api/password", { old: old === "" ? null : old, password });
    if (now.ok) {
      setOld("");
      setPassword("");
    }
    setAnswer(now);
  };
  const signOut = async () => {
    await send("POST", "/api/sign-out", {});
    // Who comes next on this device does not read what was opened on it; what is unsent stays, to be sent.
    await forgetOldJobs(deviceHere(), 0);
    await deviceHere().left("plumb/job/");
    window.location.assign("/sign-in");
  };
  const at = (field: string): string | null => (answer && !answer.ok ? answer.at(field) : null);
  return (
    <Section title="You">
      <form className="grid max-w-md gap-4" onSubmit={(e) => void submit(e)} noValidate>
        <TextField
          label="Password so far"
          hint="(empty when none was chosen)"
          type="password"
          value={old}
          wrong={at("old")}
          maxLength={128}
          autoComplete="current-password"
          onChange={setOld}
        />
        <TextField
          label="New password"
          hint="(12 characters or more)"
          type="password"
          value={password}
          wrong={at("password")}
          maxLength={128}
          autoComplete="new-password"
          onChange={setPassword}
        />
        <div aria-live="polite">
          {answer?.ok ? <p>Changed. Your other devices are signed out.</p> : null}
          {answer && !answer.ok && !at("old") && !at("password") ? (
            <FieldMessage severity="error">{answer.message}</FieldMessage>
          ) : null}
        </div>
        <div className="flex flex-wrap gap-3">
          <Button type="submit">Change the password</Button>
          <Button onClick={() => void signOut()}>Sign this device out</Button>
        </div>
      </form>
    </Section>
  );
}
