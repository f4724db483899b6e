import type { Metadata, Viewport } from "next";
import localFont from "next/font/local";
import { headers } from "next/headers";
import type { ReactNode } from "react";
import { EARLY } from "@/ui/early";
import { Offline } from "@/ui/offline/Offline";
import "./globals.css";

/** Letters of our own, asked for before anything that uses them is there. */
const letters = localFont({
  src: "../../node_modules/@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2",
  weight: "200 800",
  display: "swap",
  adjustFontFallback: false,
  variable: "--letters",
});

export const metadata: Metadata = {
  description: "Flat frames from tube: set up, square, tack and weld, so that the cold frame is within its limits.",
};
export const viewport: Viewport = { width: "device-width", initialScale: 1, themeColor: "#e9e5dc" };

/** Sets the colours that this device chose before anything is painted; what puts styles in later learns by which nonce it may. */
const THEME = `window.__webpack_nonce__=document.currentScript.nonce;try{var t=JSON.parse(localStorage.getItem("plumb/device")||"{}").theme;if(t==="light"||t==="dark"||t==="glare")document.documentElement.dataset.theme=t}catch(e){}`;

export default async function Layout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get("x-nonce") ?? undefined;
  return (
    <html lang="en" className={letters.variable} suppressHydrationWarning>
      <head>
        {/* biome-ignore lint/security/noDangerouslySetInnerHtml: a constant of this file, needed before the first paint */}
        <script nonce={nonce} dangerouslySetInnerHTML={{ __html: THEME }} />
        {/* biome-ignore lint/security/noDangerouslySetInnerHtml: a function of this application as text, needed before its code is there */}
        <script nonce={nonce} dangerouslySetInnerHTML={{ __html: EARLY }} />
      </head>
      <body>
        {children}
        <Offline />
      </body>
    </html>
  );
}
