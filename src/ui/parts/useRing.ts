"use client";

import { useEffect, useRef } from "react";
import { useDevice } from "./device";
import { tellUnseen } from "./tell";

const TONE_HZ = 880;
/** Three short tones, s from now. */
const TONES_S = [0, 0.35, 0.7];
const TONE_S = 0.2;
const SHAKE_MS = [250, 150, 250, 150, 250];

/** Three tones, made on the device. */
function ring(): void {
  const audio = new AudioContext();
  for (const at of TONES_S) {
    const tone = audio.createOscillator();
    tone.frequency.value = TONE_HZ;
    tone.connect(audio.destination);
    tone.start(audio.currentTime + at);
    tone.stop(audio.currentTime + at + TONE_S);
  }
  window.setTimeout(() => void audio.close(), 2000);
}

/**
 * Rings and shakes once when a wait is over, and tells it where the page is not in sight. It is counted by the clock, so that a screen
 * that slept rings when it wakes, and only for a wait that was seen running on this page.
 * @param isWaiting whether it still runs. @param words what is then told.
 */
export function useRing(isWaiting: boolean, words: string): void {
  const { rings, tells } = useDevice();
  const ran = useRef(false);
  useEffect(() => {
    if (isWaiting) ran.current = true;
    else if (ran.current) {
      ran.current = false;
      if (!rings) return;
      ring();
      navigator.vibrate?.(SHAKE_MS);
      if (tells) void tellUnseen(words, SHAKE_MS);
    }
  }, [isWaiting, rings, tells, words]);
}
