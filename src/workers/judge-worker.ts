import { expose } from "comlink";
import { xxhash64 } from "hash-wasm";
import { judgeOn, verdictText, type Ground, type SheetJudge } from "@/core/sheet";

let ground: Ground | null = null;

const judge: SheetJudge = {
  stand(on: Ground): void {
    ground = on;
  },
  async judge(sheet) {
    if (!ground) return null;
    const judged = judgeOn(ground, sheet);
    return { judged, verdict: await xxhash64(verdictText(sheet, judged)) };
  },
};

expose(judge);
