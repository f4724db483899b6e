"use client";

import { useEffect, useState } from "react";
import { v4 as uuid } from "uuid";
import { origin } from "../parts/device";
import type { JobStore } from "./store/jobStore";

/** Somebody else who has this job open. */
export interface Present {
  page: string;
  who: string;
  stage: string;
}

/** Heard of nothing for so long, the server is asked, ms: also where no stream comes through. */
const POLL_MS = 8000;
const QUIET_MS = 30_000;

/**
 * Hears what others do as it happens, as long as the page is seen; without a stream, by asking now and then.
 * @returns who else has the job open.
 */
export function useWatch(store: JobStore, jobId: string, stage: string): readonly Present[] {
  const [page] = useState(() => uuid());
  const [people, setPeople] = useState<readonly Present[]>([]);
  useEffect(() => {
    let stream: EventSource | null = null;
    let heardAt = 0;
    const close = () => {
      stream?.close();
      stream = null;
      setPeople((known) => (known.length === 0 ? known : []));
    };
    const open = () => {
      if (stream || document.visibilityState !== "visible" || typeof EventSource === "undefined") return;
      stream = new EventSource(`/api/jobs/${jobId}/stream?${new URLSearchParams({ page, who: origin(), stage })}`);
      stream.onmessage = ({ data }) => {
        heardAt = Date.now();
        const told = JSON.parse(data) as { news?: { seq: number; version: number }; people?: Present[] };
        if (told.people) setPeople(told.people.filter((p) => p.page !== page));
        if (told.news && store.isNews(told.news)) void store.poll();
      };
      // Away, or not let in: the browser tries again where that helps, and asking goes on below.
      stream.onerror = () => {
        heardAt = 0;
        if (stream?.readyState === EventSource.CLOSED) close();
      };
    };
    const seen = () => {
      if (document.visibilityState !== "visible") return close();
      open();
      void store.poll();
    };
    const timer = window.setInterval(() => {
      if (document.visibilityState !== "visible" || Date.now() - heardAt < QUIET_MS) return;
      open();
      void store.poll();
    }, POLL_MS);
    open();
    document.addEventListener("visibilitychange", seen);
    window.addEventListener("focus", seen);
    return () => {
      window.clearInterval(timer);
      document.removeEventListener("visibilitychange", seen);
      window.removeEventListener("focus", seen);
      close();
    };
  }, [store, jobId, stage, page]);
  return people;
}
