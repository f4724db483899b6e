"use client";

import { type FormEvent, useState } from "react";
import { Button } from "../parts/Button";
import { setDevice } from "../parts/device";
import { FieldMessage } from "../parts/Field";
import { TextField } from "../parts/TextField";
import { Door } from "./Door";
import { type Answer, deviceWords, ownPath, send } from "./send";

/** Signs this device in by name and password. */
export function SignIn({ to }: { to: string }) {
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const [wrong, setWrong] = useState<Extract<Answer<unknown>, { ok: false }> | null>(null);
  const [busy, setBusy] = useState(false);
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setBusy(true);
    const answer = await send<{ name: string }>("POST", "/api/sign-in", { name, password, device: deviceWords() });
    if (answer.ok) {
      setDevice({ who: answer.value.name });
      return window.location.assign(ownPath(to));
    }
    setWrong(answer);
    setBusy(false);
  };
  const [atName, atPassword] = [wrong?.at("name") ?? null, wrong?.at("password") ?? null];
  return (
    <Door
      title="sign in"
      say="Sign in to the shop."
      why="By an invitation from an owner of the shop a device comes in without a password: hold its camera to the code."
    >
      <form className="grid gap-4" onSubmit={(e) => void submit(e)} noValidate>
        <TextField label="Name" value={name} wrong={atName} maxLength={48} autoComplete="username" onChange={setName} />
        <TextField
          label="Password"
          type="password"
          value={password}
          wrong={atPassword}
          maxLength={128}
          autoComplete="current-password"
          onChange={setPassword}
        />
        <div aria-live="polite">
          {wrong && !atName && !atPassword ? <FieldMessage severity="error">{wrong.message}</FieldMessage> : null}
        </div>
        <Button look="advise" type="submit" disabled={busy} className="justify-self-start">
          {busy ? "Asking" : "Sign in"}
        </Button>
      </form>
    </Door>
  );
}
