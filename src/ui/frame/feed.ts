"use client";

import { useEffect, useRef } from "react";
import type { Job } from "@/core/job";
import { askHealth } from "./health";

/** One write of one document, as the server tells it. */
export interface Change {
  seq: number;
  kind: string;
  id: string;
  version: number;
  by: string;
  at: string;
}

interface Heard {
  /** What was written; null when anything may have been, since this page did not listen for a while. */
  changes?: (changes: readonly Change[] | null) => void;
  /** How far the long work of the server is, as long as there is some. */
  jobs?: (jobs: readonly Job[]) => void;
  /** Null while server and database answer, else what is the matter, in words. */
  health?: (trouble: string | null) => void;
}

/** The server says every three seconds that it is there; after this long without a word it is asked. */
const SILENCE = 5500;
const WATCH = 1000;
/** A tab that nobody looks at lets go of its connection: a browser has only six for all tabs of one server. */
const OUT_OF_SIGHT = 20_000;

const listeners = new Set<Heard>();
let source: EventSource | null = null;
let heardAt = 0;
let watch: ReturnType<typeof setInterval> | null = null;
let leaving: ReturnType<typeof setTimeout> | null = null;

const tellChanges = (changes: readonly Change[] | null): void =>
  listeners.forEach((l) => l.changes?.(changes));
const tellHealth = (trouble: string | null): void => listeners.forEach((l) => l.health?.(trouble));

function close(): void {
  source?.close();
  source = null;
  delete document.documentElement.dataset.feed;
}

function open(): void {
  close();
  const own = new EventSource("/api/v1/stream");
  source = own;
  const heard = <T>(event: string, act: (data: T) => void): void =>
    own.addEventListener(event, (e) => {
      heardAt = Date.now();
      act(JSON.parse((e as MessageEvent<string>).data) as T);
    });
  heard<{ changes: Change[] }>("changes", ({ changes }) => tellChanges(changes));
  heard("much", () => tellChanges(null));
  heard<{ jobs: Job[] }>("jobs", ({ jobs }) => listeners.forEach((l) => l.jobs?.(jobs)));
  heard<{ trouble: string | null }>("health", ({ trouble }) => tellHealth(trouble));
  own.onopen = () => {
    heardAt = Date.now();
    document.documentElement.dataset.feed = "open";
  };
  own.onerror = () => {
    delete document.documentElement.dataset.feed;
    void wonder();
  };
}

let wondering = false;

/** Nothing was heard: is the server there? A stream that has ended, or fallen silent, is opened anew. */
async function wonder(): Promise<void> {
  if (wondering) return;
  wondering = true;
  const trouble = await askHealth();
  wondering = false;
  tellHealth(trouble);
  const silent = Date.now() - heardAt > SILENCE;
  if (trouble !== null || !source || (source.readyState !== EventSource.CLOSED && !silent)) return;
  heardAt = Date.now();
  open();
  tellChanges(null);
}

function begin(): void {
  heardAt = Date.now();
  open();
  watch = setInterval(() => {
    if (source && Date.now() - heardAt > SILENCE) void wonder();
  }, WATCH);
  document.addEventListener("visibilitychange", inSight);
  addEventListener("offline", wonder);
  addEventListener("online", wonder);
}

function end(): void {
  close();
  if (watch) clearInterval(watch);
  document.removeEventListener("visibilitychange", inSight);
  removeEventListener("offline", wonder);
  removeEventListener("online", wonder);
}

function inSight(): void {
  if (leaving) clearTimeout(leaving);
  if (document.hidden) leaving = setTimeout(close, OUT_OF_SIGHT);
  else if (!source) {
    heardAt = Date.now();
    open();
    tellChanges(null);
  }
}

/** Listens to what the server tells as long as the component stands; all of a page share one connection. */
export function useFeed(heard: Heard): void {
  const latest = useRef(heard);
  useEffect(() => {
    latest.current = heard;
  });
  useEffect(() => {
    const own: Heard = {
      changes: (changes) => latest.current.changes?.(changes),
      jobs: (jobs) => latest.current.jobs?.(jobs),
      health: (trouble) => latest.current.health?.(trouble),
    };
    if (listeners.size === 0) begin();
    listeners.add(own);
    return () => {
      listeners.delete(own);
      if (listeners.size === 0) end();
    };
  }, []);
}
