import { inflateSync, strFromU8, strToU8 } from "fflate";

/** A text of entries that was packed, as it was before. */
export const unpacked = (text: string): string => strFromU8(inflateSync(strToU8(atob(text), true)));
