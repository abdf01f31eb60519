"use client";

import { term } from "@/core/text";
import { useMemo, useState } from "react";
import { judgeBootConfigs } from "@/core/netboot";
import { Signal } from "../frame/signal";

/** What servers that are there already say, judged as it is pasted; nothing of it is kept or sent. */
export function DhcpJudge({ script, prefixes }: { script: string; prefixes: readonly string[] }) {
  const [texts, setTexts] = useState([""]);
  const pasted = texts.filter((t) => t.trim() !== "");
  const numbers = texts.flatMap((t, i) => (t.trim() === "" ? [] : [i + 1]));
  const problems = useMemo(
    () =>
      judgeBootConfigs(
        texts.filter((t) => t.trim() !== ""),
        { script, prefixes },
      ),
    [texts, script, prefixes],
  );
  return (
    <div className="mt-5 border-t pt-3 border-base-300">
      <p>
        <span className="font-semibold">Check DHCP servers</span>{" "}
        <span className="quiet">
          Paste the configuration of every DHCP server of the network: dnsmasq, Kea or the ISC syntax. It is
          checked here and not saved.
        </span>
      </p>
      {texts.map((text, i) => (
        <label key={i} className="mt-2 block">
          <span className="label">Configuration of server {i + 1}</span>
          <textarea
            className="textarea value w-full text-[0.86rem]"
            rows={text === "" ? 2 : 8}
            spellCheck={false}
            value={text}
            onChange={(e) => setTexts(texts.map((t, j) => (j === i ? e.target.value : t)))}
          />
        </label>
      ))}
      {texts.at(-1) !== "" && texts.length < 8 && (
        <button type="button" className="btn mt-2" onClick={() => setTexts([...texts, ""])}>
          Add server
        </button>
      )}
      {pasted.length > 0 && (
        <ul className="mt-3 space-y-1" aria-label="Problems found">
          {problems.map(({ severity, text, line, says, remedy }) => (
            <li key={`${text} ${line} ${says}`}>
              <Signal severity={severity} size={12} /> <span className="font-semibold">{term(severity)}</span>
              , server {numbers[text]}
              {line !== null && `, line ${line}`}: {says} <span className="quiet">{remedy}</span>
            </li>
          ))}
          {problems.length === 0 && (
            <li>
              No problems found. Architectures without an entry get no boot file; that is not checked here.
            </li>
          )}
        </ul>
      )}
    </div>
  );
}
