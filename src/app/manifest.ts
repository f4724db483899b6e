import type { MetadataRoute } from "next";

/** What a device is told when the program is put on its first screen. */
export default function manifest(): MetadataRoute.Manifest {
  return {
    name: "Mellow Plumb",
    short_name: "Plumb",
    description: "Flat frames from tube: set up, square, tack and weld, so that the cold frame is within its limits.",
    start_url: "/",
    display: "standalone",
    background_color: "#e9e5dc",
    theme_color: "#e9e5dc",
    icons: [{ src: "/icon.svg", sizes: "any", type: "image/svg+xml" }],
  };
}
