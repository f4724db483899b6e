"use client";

import { ChevronLeft, Keyboard, Menu, QrCode, Search } from "lucide-react";
import dynamic from "next/dynamic";
import Link from "next/link";
import { usePathname, useRouter } from "next/navigation";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { STAGES } from "@/core/job";
import { useDevice } from "../parts/device";
import { Title } from "../parts/Title";
import { useWarm } from "../parts/useWarm";
import { Verdict } from "../parts/Verdict";
import { AlsoHere } from "./AlsoHere";
import { useJob } from "./JobProvider";
import { SaveMark } from "./SaveMark";
import { STAGE_NAMES, stageOf, stagePath } from "./stages";
import { useWatch } from "./useWatch";

// What opens when it is asked for comes after the page.
const palette = () => import("./Palette");
const device = () => import("../parts/DeviceDialog");
const collision = () => import("./ConflictDialog");
const shortcuts = () => import("./Shortcuts");
const Palette = dynamic(palette, { ssr: false });
const DeviceDialog = dynamic(() => device().then((m) => m.DeviceDialog), { ssr: false });
const ConflictDialog = dynamic(() => collision().then((m) => m.ConflictDialog), { ssr: false });
const Shortcuts = dynamic(() => shortcuts().then((m) => m.Shortcuts), { ssr: false });
const notices = () => import("./Notices");
const Notices = dynamic(() => notices().then((m) => m.Notices), { ssr: false });
const phone = () => import("./OnPhone");
const OnPhone = dynamic(() => phone().then((m) => m.OnPhone), { ssr: false });
const LATER = [palette, device, collision, shortcuts, notices];

const inField = (e: KeyboardEvent): boolean =>
  e.target instanceof HTMLElement && e.target.closest("input, textarea, select, [contenteditable]") !== null;

const toolClass =
  "inline-flex tap min-w-11 items-center justify-center gap-2 rounded-[3px] border border-transparent px-2 hover:border-edge";

function StageNav() {
  const { job, evaluation } = useJob("job", "evaluation");
  const stage = stageOf(usePathname());
  const current = useRef<HTMLAnchorElement>(null);
  // On a phone the strip scrolls: bring the current tab into sight.
  // biome-ignore lint/correctness/useExhaustiveDependencies: runs again when the stage changes
  useEffect(() => {
    current.current?.scrollIntoView({ block: "nearest", inline: "center" });
  }, [stage]);
  const reached = STAGES.indexOf(evaluation.summary.stage);
  return (
    <nav aria-label="Stages" className="screen-only -mx-4 overflow-x-auto md:mx-0 md:overflow-visible">
      <ol className="flex min-w-max px-4 md:sticky md:top-4 md:min-w-0 md:flex-col md:px-0">
        {STAGES.map((s, i) => (
          <li key={s}>
            <Link
              ref={s === stage ? current : null}
              href={stagePath(job.id, s)}
              prefetch={false}
              aria-current={s === stage ? "page" : undefined}
              className={`relative flex tap items-center gap-3 border-b-4 px-3 whitespace-nowrap no-underline md:border-b-0 md:border-l-4 ${
                s === stage
                  ? "border-plum bg-sheet font-bold text-ink"
                  : "border-transparent text-soft hover:border-edge hover:text-ink"
              }`}
            >
              <span className={`fig text-sm ${i <= reached ? "text-ink" : ""}`}>{i + 1}</span>
              {STAGE_NAMES[s]}
              {i < reached && s !== stage ? <span className="sr-only">, begun</span> : null}
            </Link>
          </li>
        ))}
      </ol>
    </nav>
  );
}

/** What is around every stage: names, save state, stages, windows, keys. */
export function JobShell({ children }: { children: ReactNode }) {
  const { job, store, evaluation, conflict } = useJob("job", "store", "evaluation", "conflict");
  const {
    othersChanges,
    refused,
    device: storage,
    wentBack,
  } = useJob("othersChanges", "refused", "device", "wentBack");
  const hasNotices = storage.state !== "keeps" || othersChanges.length > 0 || refused.length > 0 || wentBack !== null;
  const router = useRouter();
  const pathname = usePathname();
  const { who } = useDevice();
  const people = useWatch(store, job.id, stageOf(pathname));
  useWarm(LATER);
  const [open, setOpen] = useState<"palette" | "shortcuts" | "device" | "phone" | null>(null);
  const close = () => setOpen(null);

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const command = e.ctrlKey || e.metaKey;
      // The tenth goes by 0.
      const digit = Number(/^Digit(\d)$/.exec(e.code)?.[1] ?? Number.NaN);
      const stage = e.altKey && !command ? STAGES[(digit + 9) % 10] : undefined;
      if (stage) router.push(stagePath(job.id, stage));
      else if (command && e.key.toLowerCase() === "k") setOpen("palette");
      else if (command && e.key === "/") setOpen("shortcuts");
      else if (command && e.key.toLowerCase() === "z" && !inField(e)) {
        if (e.shiftKey) store.redo();
        else store.undo();
      } else return;
      e.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [router, job.id, store]);

  return (
    <div className="mx-auto max-w-[1320px] px-4 pb-16">
      <Title of={`${STAGE_NAMES[stageOf(pathname)]} · ${job.plan.name}`} />
      <header className="flex flex-wrap items-center justify-between gap-x-1 py-1 md:gap-x-6 md:py-3">
        <div className="flex min-w-0 items-center gap-x-1 max-md:flex-1 md:gap-x-4">
          <Link
            href="/"
            className="inline-flex tap items-center gap-1 text-sm font-semibold text-soft max-md:min-w-10 max-md:justify-center"
          >
            <ChevronLeft size={22} aria-hidden="true" className="md:hidden" />
            <span className="max-md:sr-only">Mellow Plumb</span>
            <span className="sr-only">, all jobs</span>
          </Link>
          <div className="min-w-0">
            <p className="truncate text-lg font-bold">{job.plan.name}</p>
            <AlsoHere people={people} />
          </div>
          <Verdict verdict={evaluation.summary.verdict} className="text-sm max-md:hidden" />
          <span className="truncate text-sm text-soft max-lg:hidden">{evaluation.summary.about}</span>
        </div>
        <div className="screen-only flex flex-wrap items-center gap-1 max-md:contents">
          <SaveMark />
          <button type="button" className={toolClass} onClick={() => setOpen("palette")}>
            <Search size={18} aria-hidden="true" />
            <span className="hidden text-sm lg:inline">Go to or do</span>
            <span className="sr-only lg:hidden">Go to or do</span>
          </button>
          <button
            type="button"
            className={`${toolClass} max-md:hidden`}
            aria-label="Keyboard shortcuts"
            onClick={() => setOpen("shortcuts")}
          >
            <Keyboard size={18} aria-hidden="true" />
          </button>
          <button
            type="button"
            className={`${toolClass} max-md:hidden`}
            aria-label="Open on the phone"
            onClick={() => setOpen("phone")}
          >
            <QrCode size={18} aria-hidden="true" />
          </button>
          <button type="button" className={toolClass} onClick={() => setOpen("device")}>
            <Menu size={18} aria-hidden="true" />
            <span className="text-sm max-md:sr-only">{who || "Who?"}</span>
            <span className="sr-only">, this device</span>
          </button>
        </div>
      </header>
      <div className="grid gap-5 md:grid-cols-[10.5rem_minmax(0,1fr)] print:block">
        <StageNav />
        <main key={pathname} className="grid min-w-0 content-start gap-6 border-t-2 border-ink bg-sheet p-4 sm:p-6">
          {hasNotices ? <Notices /> : null}
          {children}
        </main>
      </div>
      {conflict ? <ConflictDialog /> : null}
      {open === "shortcuts" ? <Shortcuts open onClose={close} /> : null}
      {open === "device" ? <DeviceDialog open onClose={close} /> : null}
      {open === "phone" ? <OnPhone onClose={close} /> : null}
      {open === "palette" ? (
        <Palette
          onClose={close}
          onShortcuts={() => setOpen("shortcuts")}
          onDevice={() => setOpen("device")}
          onPhone={() => setOpen("phone")}
        />
      ) : null}
    </div>
  );
}
