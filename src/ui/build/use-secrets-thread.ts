import { wrap, type Remote } from "comlink";
import { useEffect, useRef, useState } from "react";
import type { SecretsThread, Strength } from "@/core/secret";

/** The worker that hashes passwords and judges how long they stand; begun when the first one is typed. */
export function useSecretsThread(words: readonly string[]): {
  strength: Strength | null;
  weigh: (password: string) => void;
  /** What `weigh` will tell of it, once it is worked out. */
  weighed: (password: string) => Promise<Strength>;
  thread: () => Remote<SecretsThread>;
} {
  // Kept as long as the page: a proxy that nobody holds would take the worker's ear with it.
  const kept = useRef<{ worker: Worker; thread: Remote<SecretsThread> } | null>(null);
  const last = useRef(0);
  const [strength, setStrength] = useState<Strength | null>(null);
  useEffect(
    () => () => {
      kept.current?.worker.terminate();
      kept.current = null;
    },
    [],
  );
  const thread = (): Remote<SecretsThread> => {
    if (!kept.current) {
      const worker = new Worker(new URL("../../workers/secrets-worker.ts", import.meta.url), {
        type: "module",
      });
      kept.current = { worker, thread: wrap<SecretsThread>(worker) };
    }
    return kept.current.thread;
  };
  const weighed = (password: string): Promise<Strength> => thread().strength(password, words);
  const weigh = (password: string): void => {
    const turn = (last.current += 1);
    setStrength(null);
    if (password === "") return;
    void weighed(password).then((found) => turn === last.current && setStrength(found));
  };
  return { strength, weigh, weighed, thread };
}
