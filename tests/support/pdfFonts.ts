import { readFileSync } from "node:fs";
import path from "node:path";
import type { PdfFonts } from "@/formats/pdfLetters";

const folder = path.join(import.meta.dirname, "../../node_modules/@expo-google-fonts/atkinson-hyperlegible-next");
const file = (name: string): Uint8Array => readFileSync(path.join(folder, name));

/** The letters that the application writes PDFs with. */
export const PDF_FONTS: PdfFonts = {
  regular: file("400Regular/AtkinsonHyperlegibleNext_400Regular.ttf"),
  bold: file("700Bold/AtkinsonHyperlegibleNext_700Bold.ttf"),
};
