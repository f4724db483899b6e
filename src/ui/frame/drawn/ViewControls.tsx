"use client";

import { Button } from "../../parts/Button";

/** Buttons that move the view: nearer and farther, along or round, back to all of it. */
export function ViewControls({
  solid,
  onZoom,
  onShift,
  onWhole,
}: {
  solid: boolean;
  onZoom: (by: number) => void;
  onShift: (x: number, y: number) => void;
  onWhole: () => void;
}) {
  const ways = [
    ["←", solid ? "Turn left" : "Look to the left", -1, 0],
    ["→", solid ? "Turn right" : "Look to the right", 1, 0],
    ["↑", solid ? "Tilt up" : "Look up", 0, 1],
    ["↓", solid ? "Tilt down" : "Look down", 0, -1],
  ] as const;
  return (
    <>
      {solid ? null : (
        <>
          <Button aria-label="Nearer" onClick={() => onZoom(1.4)}>
            +
          </Button>
          <Button aria-label="Farther" onClick={() => onZoom(1 / 1.4)}>
            −
          </Button>
        </>
      )}
      {ways.map(([mark, label, x, y]) => (
        <Button key={mark} aria-label={label} onClick={() => onShift(x, y)}>
          {mark}
        </Button>
      ))}
      <Button onClick={onWhole}>All of it</Button>
    </>
  );
}
