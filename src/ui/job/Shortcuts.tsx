"use client";

import { Dialog } from "../parts/Dialog";

const LIST: readonly (readonly [string, string])[] = [
  ["Alt + 1 … 9, 0", "Go to a stage"],
  ["Ctrl + K", "Go to or do, by name"],
  ["Ctrl + Z", "Undo a change to the job or frame (outside a field)"],
  ["Ctrl + Shift + Z", "Redo"],
  ["Arrow keys", "Drawing freely: move what is picked (with Shift ten times as far)"],
  ["Delete", "Drawing freely: take out what is picked"],
  ["Ctrl + A, Ctrl + D", "Drawing freely: pick all; copy what is picked"],
  ["Shift + press or Enter", "Drawing freely: pick one more, or one less"],
  ["Enter", "In a reading: keep it and go to the next"],
  ["Ctrl + /", "This list"],
  ["Tab, Shift + Tab", "Next or previous control; members of the drawing too"],
  ["Escape", "Close a window"],
];

/** The visible list of shortcuts. */
export function Shortcuts({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} title="Keyboard shortcuts">
      <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-2">
        {LIST.map(([keys, does]) => (
          <div key={keys} className="contents">
            <dt className="fig font-semibold whitespace-nowrap">{keys}</dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
