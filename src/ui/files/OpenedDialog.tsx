"use client";

import type { ReactNode } from "react";
import type { FileHeld, Files } from "@/workers/files";
import { Button } from "../parts/Button";
import { Dialog } from "../parts/Dialog";
import { useOpened } from "./useOpened";

/** A window that says what is in a file before anything of it is taken. */
export function OpenedDialog({
  file,
  children,
  onClose,
}: {
  file: File;
  /** What can be done with what is in it. */
  children: (held: FileHeld, files: () => Files | null) => ReactNode;
  onClose: () => void;
}) {
  const { opening, files } = useOpened(file);
  return (
    <Dialog open onClose={onClose} title={file.name.slice(0, 80)}>
      <div aria-live="polite" className="grid gap-4" data-testid="opened">
        {opening.status === "reading" ? (
          <>
            <p>
              Reading {(file.size / 1e6).toFixed(1)} MB
              {opening.share < 1 ? `, ${Math.round(100 * opening.share)} %` : ": finding what is in it"}
            </p>
            <Button className="justify-self-start" onClick={onClose}>
              Stop
            </Button>
          </>
        ) : opening.status === "failed" ? (
          <>
            <p className="border-l-4 border-fail pl-3">{opening.message}</p>
            <p className="text-soft">Nothing of it was taken.</p>
            <Button className="justify-self-start" onClick={onClose}>
              Close
            </Button>
          </>
        ) : (
          children(opening.held, files)
        )}
      </div>
    </Dialog>
  );
}
