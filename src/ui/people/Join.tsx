"use client";

import { type FormEvent, useState } from "react";
import { Button } from "../parts/Button";
import { setDevice, useInBrowser } from "../parts/device";
import { FieldMessage } from "../parts/Field";
import { TextField } from "../parts/TextField";
import { Door } from "./Door";
import { type Answer, deviceWords, ownPath, send } from "./send";

/** What stands behind the # of the address: it is never sent to a server, nor written into one's log. */
const invited = (): URLSearchParams => new URLSearchParams(window.location.hash.slice(1));

/** Lets a device in by its invitation; a password may be chosen for signing in elsewhere. */
export function Join() {
  const inBrowser = useInBrowser();
  const [password, setPassword] = useState("");
  const [wrong, setWrong] = useState<Extract<Answer<unknown>, { ok: false }> | null>(null);
  const [busy, setBusy] = useState(false);
  const code = inBrowser ? (invited().get("code") ?? "") : "";
  const isOwn = inBrowser && invited().has("own");
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setBusy(true);
    const answer = await send<{ name: string }>("POST", "/api/join", {
      code,
      password: password === "" ? null : password,
      device: deviceWords(),
    });
    if (answer.ok) {
      setDevice({ who: answer.value.name });
      return window.location.assign(ownPath(invited().get("to") ?? "/"));
    }
    setWrong(answer);
    setBusy(false);
  };
  if (inBrowser && code === "")
    return (
      <Door
        title="come in"
        say="This address holds no invitation."
        why="Ask an owner of the shop for a code, and hold the camera to it."
      >
        <a href="/sign-in">Sign in by name and password</a>
      </Door>
    );
  const atPassword = wrong?.at("password") ?? null;
  return (
    <Door
      title="come in"
      say="Let this device in."
      why="The code is good once. The device then stays signed in until it lies unused for three months, signs out, or is withdrawn."
    >
      <form className="grid gap-4" onSubmit={(e) => void submit(e)} noValidate>
        {isOwn ? null : (
          <TextField
            label="Password, if you also sign in elsewhere"
            hint="(12 characters or more; may stay empty)"
            type="password"
            value={password}
            wrong={atPassword}
            maxLength={128}
            autoComplete="new-password"
            onChange={setPassword}
          />
        )}
        <div aria-live="polite">
          {wrong && !atPassword ? <FieldMessage severity="error">{wrong.message}</FieldMessage> : null}
        </div>
        <Button look="advise" type="submit" disabled={busy || !inBrowser} className="justify-self-start">
          {busy ? "Asking" : "Come in"}
        </Button>
      </form>
    </Door>
  );
}
