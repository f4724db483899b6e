"use client";

import dynamic from "next/dynamic";
import { useState } from "react";
import { useWarm } from "../parts/useWarm";
import { FileDrop } from "./FileDrop";

const inJobFile = () => import("./InJobFile");
const InJobFile = dynamic(inJobFile, { ssr: false });
const LATER = [inJobFile];

/** Reads a drawing or a table into a job: chosen, or dropped anywhere on the page. */
export function ReadIn({ label }: { label: string }) {
  const [file, setFile] = useState<File | null>(null);
  useWarm(LATER);
  return (
    <>
      <FileDrop
        label={label}
        over="Drop it here: a drawing (DXF, SVG), measured sizes or pieces to cut (CSV)"
        testId="drawing-file"
        onFile={setFile}
      />
      {file ? (
        <InJobFile key={`${file.name}/${file.lastModified}/${file.size}`} file={file} onClose={() => setFile(null)} />
      ) : null}
    </>
  );
}
