"use client";

import { Check, CloudOff, LoaderCircle, TriangleAlert } from "lucide-react";
import { useJob } from "./JobProvider";

/** Saved, saving, waiting or refused, always in sight, with why. */
export function SaveMark() {
  const { save, unsent, texts, refused, store } = useJob("save", "unsent", "texts", "refused", "store");
  // Drafts of readings and notes are not part of the plan: they are kept until they are entered.
  const unread = Object.keys(texts).some((path) => !/^(reading|log)\//.test(path));
  const waiting = unsent.size > 0 ? ` ${unsent.size} to send.` : "";
  return (
    <div
      role="status"
      aria-live="polite"
      data-save={save.state}
      className={`flex items-center gap-2 text-sm tap ${save.state === "saved" || save.state === "saving" ? "" : "max-md:order-last max-md:basis-full"}`}
    >
      {save.state === "saved" ? (
        <>
          <Check size={17} aria-hidden="true" />{" "}
          {refused.length > 0
            ? "Saved, except what was not taken"
            : unread
              ? "Saved, except what cannot be read"
              : "Saved"}
        </>
      ) : save.state === "saving" ? (
        <>
          <LoaderCircle size={17} aria-hidden="true" className="animate-spin" /> Saving
        </>
      ) : save.state === "waiting" ? (
        <>
          <CloudOff size={17} aria-hidden="true" className="shrink-0 text-close" />
          <span>
            <strong className="text-close">Not saved yet.</strong> {save.why}
            {waiting}{" "}
            {save.signIn ? (
              <a href={`/sign-in?to=${encodeURIComponent(window.location.pathname)}`} className="mr-3 underline">
                Sign in
              </a>
            ) : null}
            <button type="button" className="underline" onClick={() => store.retry()}>
              Send now
            </button>
          </span>
        </>
      ) : (
        <>
          <TriangleAlert size={17} aria-hidden="true" className="shrink-0 text-fail" />
          <span>
            <strong className="text-fail">Could not save.</strong> {save.why} What you typed is kept on this device.
          </span>
        </>
      )}
    </div>
  );
}
