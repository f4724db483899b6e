/** Letters that the built-in fonts of PDF have; what they lack is written otherwise. */
export const printable = (text: string): string =>
  text
    .replace(/[\u2212\u2010-\u2015]/g, "-")
    .replace(/\u2192/g, "to")
    .replace(/\u2248/g, "about ")
    .replace(/[\u2018\u2019]/g, "'")
    .replace(/[\u201c\u201d]/g, '"')
    .replace(/\u2026/g, "...")
    .replace(/[\u2264]/g, "at most ")
    .replace(/[\u2265]/g, "at least ")
    .replace(/[\u00a0\u202f\u2009]/g, " ")
    .replace(/[^\u0020-\u007e\u00a1-\u00ff]/g, "?");
