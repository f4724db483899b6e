"use client";

import { useEffect } from "react";
import { useDevice } from "../parts/device";

/** Says aloud what is to be read next, by the device's own voice, where that was switched on. */
export function useSaid(words: string | null): void {
  const { speaks } = useDevice();
  useEffect(() => {
    if (!speaks || words === null || !("speechSynthesis" in window)) return;
    window.speechSynthesis.cancel();
    const said = new SpeechSynthesisUtterance(words);
    said.lang = "en";
    window.speechSynthesis.speak(said);
    return () => window.speechSynthesis.cancel();
  }, [speaks, words]);
}
