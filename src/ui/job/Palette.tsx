"use client";

import { Command } from "cmdk";
import { useRouter } from "next/navigation";
import { STAGES } from "@/core/job";
import { Dialog } from "../parts/Dialog";
import { setDevice, useDevice } from "../parts/device";
import { useJob } from "./JobProvider";
import { STAGE_NAMES, stagePath } from "./stages";

/** Everything that can be done from the keyboard, by name. */
export default function Palette({
  onClose,
  onShortcuts,
  onDevice,
  onPhone,
}: {
  onClose: () => void;
  onShortcuts: () => void;
  onDevice: () => void;
  onPhone: () => void;
}) {
  const router = useRouter();
  const { job, store, canUndo, canRedo } = useJob("job", "store", "canUndo", "canRedo");
  const { turn, theme } = useDevice();
  const item = (name: string, run: () => void) => (
    <Command.Item
      key={name}
      value={name}
      className="flex tap items-center rounded-[3px] px-3 data-[selected=true]:bg-plum-soft data-[selected=true]:font-semibold"
      onSelect={() => {
        onClose();
        run();
      }}
    >
      {name}
    </Command.Item>
  );
  return (
    <Dialog open onClose={onClose} title="Go to or do">
      <Command label="Go to or do" loop>
        <Command.Input
          autoFocus
          placeholder="Type a few letters"
          className="mb-2 tap w-full rounded-[3px] border border-edge bg-well px-3"
        />
        <Command.List className="max-h-[50dvh] overflow-auto">
          <Command.Empty className="p-3 text-soft">Nothing by that name.</Command.Empty>
          {STAGES.map((s, i) => item(`${i + 1} ${STAGE_NAMES[s]}`, () => router.push(stagePath(job.id, s))))}
          {item("All jobs", () => router.push("/"))}
          {item("Shelf of instruments", () => router.push("/shelf"))}
          {canUndo ? item("Undo the last change", () => store.undo()) : null}
          {canRedo ? item("Redo", () => store.redo()) : null}
          {item("Turn the drawing", () => setDevice({ turn: ((turn + 1) % 4) as 0 | 1 | 2 | 3 }))}
          {item(theme === "dark" ? "Day colours" : "Night-shift colours", () =>
            setDevice({ theme: theme === "dark" ? "light" : "dark" }),
          )}
          {item("Open on the phone", onPhone)}
          {item("People", () => router.push("/people"))}
          {item("This device: name, light, drawing", onDevice)}
          {item("Keyboard shortcuts", onShortcuts)}
          {item("Print this stage", () => window.print())}
        </Command.List>
      </Command>
    </Dialog>
  );
}
