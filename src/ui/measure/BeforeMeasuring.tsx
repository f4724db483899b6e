"use client";

import dynamic from "next/dynamic";
import type { Provable } from "@/core/check";
import { Section } from "../parts/Sheet";
import { useWarm } from "../parts/useWarm";

const proven = () => import("./WhatCanBeProven");
const WhatCanBeProven = dynamic(() => proven().then((m) => m.WhatCanBeProven), { ssr: false });
const LATER = [proven];

/** Said before anything is measured: which limits the shelf can prove. */
export function BeforeMeasuring(props: { kinds: readonly Provable["limit"]["kind"][]; share?: number }) {
  useWarm(LATER);
  return (
    <Section title="What can be proven" aside={<span className="text-sm text-soft">before measuring</span>}>
      <WhatCanBeProven {...props} />
    </Section>
  );
}
