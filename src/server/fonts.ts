import "server-only";
import { readFile } from "node:fs/promises";
import path from "node:path";
import type { PdfFonts } from "@/formats/pdfLetters";

/** Where the letters lie beside the application, as they do beside the sources. */
const FOLDER = "node_modules/@expo-google-fonts/atkinson-hyperlegible-next";

let kept: Promise<PdfFonts> | null = null;

/** The letters that a PDF is written with, read once. */
export function pdfFonts(): Promise<PdfFonts> {
  const file = (name: string): Promise<Buffer> => readFile(path.join(process.cwd(), FOLDER, name));
  kept ??= Promise.all([
    file("400Regular/AtkinsonHyperlegibleNext_400Regular.ttf"),
    file("700Bold/AtkinsonHyperlegibleNext_700Bold.ttf"),
  ]).then(([regular, bold]) => ({ regular, bold }));
  // What could not be read is tried again.
  kept.catch(() => {
    kept = null;
  });
  return kept;
}
