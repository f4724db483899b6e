"use client";

import { FileUp } from "lucide-react";
import { type ChangeEvent, useEffect, useRef, useState } from "react";
import { Button } from "../parts/Button";

/** Kinds of files that are offered when one is chosen; what a file is is found out from what is in it. */
const ACCEPTED = ".json,.zip,.dxf,.svg,.csv,.txt,application/json,application/zip,image/svg+xml,text/csv";

const carriesFile = (e: DragEvent): boolean => [...(e.dataTransfer?.types ?? [])].includes("Files");

/** A button that takes a file, and the whole page on which one may be dropped. */
export function FileDrop({
  label,
  over,
  testId,
  onFile,
}: {
  label: string;
  /** What the page says while a file is held over it. */
  over: string;
  testId: string;
  onFile: (file: File) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const [held, setHeld] = useState(false);
  const take = useRef(onFile);
  useEffect(() => {
    take.current = onFile;
  });
  useEffect(() => {
    // Elements under the hand are entered and left in turn: what was entered and not left is still under it.
    let depth = 0;
    const enter = (e: DragEvent) => {
      if (!carriesFile(e)) return;
      depth++;
      setHeld(true);
    };
    const leave = (e: DragEvent) => {
      if (!carriesFile(e)) return;
      depth = Math.max(0, depth - 1);
      if (depth === 0) setHeld(false);
    };
    const move = (e: DragEvent) => {
      if (carriesFile(e)) e.preventDefault();
    };
    const drop = (e: DragEvent) => {
      if (!carriesFile(e)) return;
      e.preventDefault();
      depth = 0;
      setHeld(false);
      const file = e.dataTransfer?.files[0];
      if (file) take.current(file);
    };
    window.addEventListener("dragenter", enter);
    window.addEventListener("dragleave", leave);
    window.addEventListener("dragover", move);
    window.addEventListener("drop", drop);
    return () => {
      window.removeEventListener("dragenter", enter);
      window.removeEventListener("dragleave", leave);
      window.removeEventListener("dragover", move);
      window.removeEventListener("drop", drop);
    };
  }, []);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={ACCEPTED}
        className="sr-only"
        tabIndex={-1}
        aria-hidden="true"
        data-testid={testId}
        onChange={(e: ChangeEvent<HTMLInputElement>) => {
          const file = e.target.files?.[0];
          e.target.value = "";
          if (file) onFile(file);
        }}
      />
      <Button className="justify-self-start" onClick={() => input.current?.click()}>
        <FileUp size={18} aria-hidden="true" /> {label}
      </Button>
      {held ? (
        <div className="pointer-events-none fixed inset-3 z-50 grid place-items-center border-4 border-dashed border-plum bg-sheet/85">
          <p className="max-w-prose p-6 text-center text-2xl font-bold">{over}</p>
        </div>
      ) : null}
    </>
  );
}
