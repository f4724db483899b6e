import type { CSSProperties } from "react";

/** Room for a picture: at most so high, with so much around it for names, pixels. */
interface Room {
  marginPx: number;
  mostPx: number;
}

/** Room on a page and on a phone. */
export interface Rooms {
  wide: Room;
  narrow: Room;
}

/** Narrower than this is a phone, pixels: the width of the picture itself, as in the style sheet. */
const NARROW_PX = 480;

/** More than any picture is high over its width. */
const HIGHEST = 1e6;

/** @returns the room that a picture of this width has. */
export const roomAt = (rooms: Rooms, widthPx: number): Room => (widthPx < NARROW_PX ? rooms.narrow : rooms.wide);

/**
 * Height of a picture that fits its width, told to the browser before the page's code has measured that width: a page that grows as it
 * comes to life slides away under the finger. The picture stands in an element of class `@container`.
 * @param tall height of what is drawn over its width; null for a picture that is always as high as it may be.
 */
export const fitsRoom = (rooms: Rooms, tall: number | null): { className: string; style: CSSProperties } => ({
  className: "fits-room",
  style: {
    "--tall": tall ?? HIGHEST,
    "--margin-wide": `${rooms.wide.marginPx}px`,
    "--most-wide": `${rooms.wide.mostPx}px`,
    "--margin-narrow": `${rooms.narrow.marginPx}px`,
    "--most-narrow": `${rooms.narrow.mostPx}px`,
  } as CSSProperties,
});
