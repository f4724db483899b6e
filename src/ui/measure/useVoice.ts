"use client";

import { useCallback, useEffect, useRef, useState } from "react";

/** What a browser listens by, as far as it is used here. */
interface Recognition {
  lang: string;
  processLocally: boolean;
  interimResults: boolean;
  maxAlternatives: number;
  onresult: ((e: { results: ArrayLike<ArrayLike<{ transcript: string }>> }) => void) | null;
  onerror: ((e: { error: string }) => void) | null;
  onend: (() => void) | null;
  start: () => void;
  abort: () => void;
}
interface Recognizer {
  new (): Recognition;
  available?: (what: { langs: string[]; processLocally: boolean }) => Promise<string>;
}

/** Numbers are understood as they are said in English. */
const LANG = "en-US";
/** Ways in which one recogniser heard it: the first that is a number is taken. */
const HEARINGS = 4;

const recognizer = (): Recognizer | undefined =>
  (window as unknown as { SpeechRecognition?: Recognizer }).SpeechRecognition;

/** Set while the browser is asked: one that lost the page over the question is not asked again. */
const ASKING = "plumb/asking-to-hear";

/** Whether this browser understands speech by itself: what would send it away is not asked for. */
async function hearsAlone(): Promise<boolean> {
  const made = recognizer();
  if (!made?.available) return false;
  try {
    if (localStorage.getItem(ASKING)) return false;
    localStorage.setItem(ASKING, "1");
    const answer = await made.available({ langs: [LANG], processLocally: true }).catch(() => "unavailable");
    localStorage.removeItem(ASKING);
    return answer === "available";
  } catch {
    // A blocked store: without it a question that ends the page would be asked for ever.
    return false;
  }
}

const ERRORS: Readonly<Record<string, string>> = {
  "not-allowed": "The browser does not let this page listen: allow the microphone, or type it.",
  "audio-capture": "No microphone was found: type it.",
  "no-speech": "Nothing was heard.",
};

/**
 * Hears one reading, on the device alone.
 * @param onHeard is given what may have been said, likeliest first. @param onTrouble why nothing was heard.
 * @returns null where the browser cannot do it by itself; undefined until it has said so.
 */
export function useVoice(
  onHeard: (said: readonly string[]) => void,
  onTrouble: (why: string) => void,
): { isListening: boolean; listen: () => void; stop: () => void } | null | undefined {
  const [can, setCan] = useState<boolean | undefined>(undefined);
  const [isListening, setListening] = useState(false);
  const own = useRef<Recognition | null>(null);
  const told = useRef({ onHeard, onTrouble });
  told.current = { onHeard, onTrouble };
  useEffect(() => {
    let isHere = true;
    void hearsAlone().then((yes) => isHere && setCan(yes));
    return () => {
      isHere = false;
      own.current?.abort();
    };
  }, []);
  const listen = useCallback(() => {
    const Made = recognizer();
    if (!Made || own.current) return;
    const r = new Made();
    Object.assign(r, { lang: LANG, processLocally: true, interimResults: false, maxAlternatives: HEARINGS });
    r.onresult = ({ results }) => {
      const last = results[results.length - 1];
      told.current.onHeard(Array.from(last ?? [], (heard) => heard.transcript));
    };
    r.onerror = ({ error }) => {
      if (error !== "aborted")
        told.current.onTrouble(ERRORS[error] ?? "It was not understood: say it again, or type it.");
    };
    r.onend = () => {
      own.current = null;
      setListening(false);
    };
    own.current = r;
    setListening(true);
    r.start();
  }, []);
  const stop = useCallback(() => own.current?.abort(), []);
  return can ? { isListening, listen, stop } : can === false ? null : undefined;
}
