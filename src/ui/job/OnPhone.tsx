"use client";

import { useEffect, useState } from "react";
import { Dialog } from "../parts/Dialog";
import { QrCode } from "../parts/QrCode";
import { originForOthers, send } from "../people/send";

/** A code that opens what this page shows on a phone; where people sign in, it lets the phone in as this person. */
export function OnPhone({ onClose }: { onClose: () => void }) {
  const [address, setAddress] = useState<string | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  useEffect(() => {
    void send<{ code: string; address: string | null } | null>("POST", "/api/devices", {}).then((answer) => {
      if (!answer.ok) return setSaid(answer.message);
      const origin = originForOthers(answer.value?.address ?? null);
      if (!origin)
        return setSaid(
          "Only this machine reaches this address. Start the program with script/serve: it listens on the shop's network, and this code then opens the job on the phone.",
        );
      const { pathname, search } = window.location;
      const to = pathname + search;
      setAddress(
        answer.value ? `${origin}/join#${new URLSearchParams({ code: answer.value.code, own: "1", to })}` : origin + to,
      );
    });
  }, []);
  return (
    <Dialog
      open
      onClose={onClose}
      title="Open on the phone"
      description="Hold the phone's camera to the code. It is good once, within an hour, and lets the phone in under your name."
    >
      {address ? <QrCode text={address} label="Code that opens this page on a phone" /> : null}
      {said ? <p role="alert">{said}</p> : null}
    </Dialog>
  );
}
