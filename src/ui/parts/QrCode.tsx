"use client";

import { useEffect, useState } from "react";

/** An address as a code for a camera: dark on light in every theme, so that it can be read. */
export function QrCode({ text, label }: { text: string; label: string }) {
  const [image, setImage] = useState<string | null>(null);
  useEffect(() => {
    let isGone = false;
    void import("qrcode")
      .then(({ toDataURL }) => toDataURL(text, { margin: 3, width: 480, errorCorrectionLevel: "M" }))
      .then((url) => (isGone ? undefined : setImage(url)));
    return () => {
      isGone = true;
    };
  }, [text]);
  return image ? (
    // biome-ignore lint/performance/noImgElement: made here, from an address
    <img src={image} alt={label} width={240} height={240} className="border border-edge" data-testid="code" />
  ) : (
    <div className="size-60 border border-edge" role="status">
      <span className="sr-only">Making the code</span>
    </div>
  );
}
