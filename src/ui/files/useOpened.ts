import { useEffect, useRef, useState } from "react";
import type { Result } from "@/core/units";
import { type FileHeld, Files } from "@/workers/files";

/** How far a file was opened. */
export type Opening =
  | { status: "reading"; share: number }
  | { status: "failed"; message: string }
  | { status: "open"; held: FileHeld };

const BROKEN = "This file could not be read on this device. Try it once more.";

/** Opens a file in a worker, which keeps what is large; it ends with the component. */
export function useOpened(file: File): { opening: Opening; files: () => Files | null } {
  const [opening, setOpening] = useState<Opening>({ status: "reading", share: 0 });
  const kept = useRef<Files | null>(null);
  useEffect(() => {
    let gone = false;
    const show = (next: Opening) => {
      if (!gone) setOpening(next);
    };
    // How far it is comes on a way of its own, and may come after the file.
    let isRead = false;
    const files = new Files(() => show({ status: "failed", message: BROKEN }));
    kept.current = files;
    files
      .open(file, (share) => !isRead && show({ status: "reading", share }))
      .then((read: Result<FileHeld>) => {
        isRead = true;
        show(read.ok ? { status: "open", held: read.value } : { status: "failed", message: read.message });
      })
      .catch(() => show({ status: "failed", message: BROKEN }));
    return () => {
      gone = true;
      kept.current = null;
      files.end();
    };
  }, [file]);
  return { opening, files: () => kept.current };
}
