import fontkit from "@pdf-lib/fontkit";
import { PDFDocument, type PDFFont } from "pdf-lib";

/** Our letters as TrueType, to put into a PDF. */
export interface PdfFonts {
  regular: Uint8Array;
  bold: Uint8Array;
}

/** A PDF that is begun, and what is written in it with. */
export interface PdfLetters {
  pdf: PDFDocument;
  font: PDFFont;
  bold: PDFFont;
  /** A text in the letters that there are. */
  plain: (text: string) => string;
}

/** What is written otherwise where a letter is not there. */
const OTHERWISE: Record<string, string> = {
  "\u2192": "to",
  "\u2248": "about ",
  "\u00b5": "u",
  "\u2212": "-",
  "\u2010": "-",
  "\u2011": "-",
  "\u2300": "\u00d8",
  "\u25a2": "[ ]",
  "\u00a0": " ",
  "\u202f": " ",
  "\u2009": " ",
};

/** A text in the letters that there are; what has no letter is written otherwise, or as a question mark. */
export const inLetters = (text: string, letters: ReadonlySet<number>): string =>
  [...text]
    .map((c) => {
      const code = c.codePointAt(0) ?? 0;
      if (code >= 0x20 && letters.has(code)) return c;
      return OTHERWISE[c] ?? "?";
    })
    .join("");

/** Begins a PDF with our letters in it: only those that are used. @param title what it says of itself. */
export async function beginPdf(title: string, fonts: PdfFonts): Promise<PdfLetters> {
  const pdf = await PDFDocument.create();
  pdf.registerFontkit(fontkit);
  const font = await pdf.embedFont(fonts.regular, { subset: true });
  const bold = await pdf.embedFont(fonts.bold, { subset: true });
  const letters = new Set(font.getCharacterSet());
  const plain = (text: string): string => inLetters(text, letters);
  pdf.setTitle(plain(title));
  pdf.setProducer("Mellow Plumb");
  return { pdf, font, bold, plain };
}
