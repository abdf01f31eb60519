import { expose } from "comlink";
import { Trials, type TrialThread } from "@/core/storage";

/** Systems between two words about how far it is. */
const CHUNK_SECONDS = 0.2;

/** Draws systems one after the other; ended from outside by ending the thread. */
const thread: TrialThread = {
  run(trial, runs, told) {
    const trials = new Trials(trial);
    let chunk = 100;
    for (let done = 0; done < runs;) {
      const began = performance.now();
      const count = Math.min(chunk, runs - done);
      const soFar = trials.run(count);
      done += count;
      told(soFar);
      const seconds = (performance.now() - began) / 1000;
      chunk = Math.max(100, Math.round(chunk * Math.min(4, CHUNK_SECONDS / Math.max(seconds, 1e-4))));
    }
  },
};

expose(thread);
