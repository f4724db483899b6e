"use client";

import { Mic, MicOff } from "lucide-react";
import { spokenText } from "@/core/units";
import { Button } from "../parts/Button";
import { useVoice } from "./useVoice";

/** A reading that is said instead of typed, where the browser understands speech on the device alone. */
export default function SayIt({
  onText,
  onTrouble,
}: {
  onText: (text: string) => void;
  onTrouble: (why: string) => void;
}) {
  const voice = useVoice((said) => {
    const text = said.flatMap((s) => spokenText(s) ?? [])[0];
    if (text === undefined) onTrouble(`Heard “${said[0] ?? ""}”, and that is no number: say it again, or type it.`);
    else onText(text);
  }, onTrouble);
  if (voice === undefined) return null;
  if (voice === null)
    return <p className="mt-1 text-sm text-soft">This browser does not understand speech on the device: type it.</p>;
  return (
    <Button className="mt-2" aria-pressed={voice.isListening} onClick={voice.isListening ? voice.stop : voice.listen}>
      {voice.isListening ? <MicOff size={18} aria-hidden="true" /> : <Mic size={18} aria-hidden="true" />}
      {voice.isListening ? "Listening: say the reading" : "Say it"}
    </Button>
  );
}
