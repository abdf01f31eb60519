import { parentPort } from "node:worker_threads";
import { readingInto, readToShow, type IntakeAsk, type IntakeWord } from "../core/machine";

// The thread in which the server reads texts, one reading at a time.

const say = (word: IntakeWord): void => parentPort?.postMessage(word);

parentPort?.on("message", (ask: IntakeAsk) => {
  const steps = readingInto(ask);
  let step = steps.next();
  for (; !step.done; step = steps.next()) say({ done: step.value });
  say({ read: ask.toShow ? readToShow(step.value) : step.value });
});
