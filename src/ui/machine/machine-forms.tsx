"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Facts } from "@/core/machine";
import type { Problem } from "@/core/result";
import { CopyValue } from "../frame/copy-value";
import { Problems } from "../frame/problems";
import { useMachine } from "./machine-draft";

type Answer<T> = { ok: true; value: T } | { ok: false; problems: Problem[] };

/** What no tool prints: whether there is a management controller and whether it may map media. */
export function ControllerForm({
  controller,
  save,
}: {
  controller: Facts["controller"];
  save: (values: {
    present: boolean;
    address: string | null;
    virtualMedia: "licensed" | "not licensed" | "unknown";
    mediaBytesPerSecond: number | null;
    loginKept: string | null;
  }) => Promise<Answer<number>>;
}) {
  const router = useRouter();
  const [present, setPresent] = useState<string>(
    controller?.present === undefined ? "" : controller.present ? "yes" : "no",
  );
  const [address, setAddress] = useState(controller?.address ?? "");
  const [media, setMedia] = useState(controller?.virtualMedia ?? "unknown");
  const [rate, setRate] = useState(
    controller?.mediaBytesPerSecond ? String(controller.mediaBytesPerSecond / 1e6) : "",
  );
  const [login, setLogin] = useState(controller?.loginKept ?? "");
  const [problems, setProblems] = useState<Problem[]>([]);
  const typedRate = Number(rate.replace(",", "."));
  const bytesPerSecond = typedRate > 0 ? typedRate * 1e6 : null;
  const changed =
    bytesPerSecond !== (controller?.mediaBytesPerSecond ?? null) ||
    login !== (controller?.loginKept ?? "") ||
    present !== (controller?.present === undefined ? "" : controller.present ? "yes" : "no") ||
    address !== (controller?.address ?? "") ||
    media !== (controller?.virtualMedia ?? "unknown");
  return (
    <form
      className="grid items-end gap-4 sm:grid-cols-4"
      onSubmit={async (e) => {
        e.preventDefault();
        const answer = await save({
          present: present === "yes",
          address: address.trim() || null,
          virtualMedia: present === "yes" ? media : "unknown",
          mediaBytesPerSecond: bytesPerSecond,
          loginKept: login.trim() || null,
        });
        setProblems(answer.ok ? [] : answer.problems);
        router.refresh();
      }}
    >
      <label>
        <span className="label">Management controller</span>
        <select className="select" value={present} onChange={(e) => setPresent(e.target.value)}>
          <option value="">not known</option>
          <option value="yes">there is one</option>
          <option value="no">none</option>
        </select>
      </label>
      {present === "yes" && (
        <>
          <label>
            <span className="label">Its address</span>
            <input
              className="input"
              value={address}
              maxLength={60}
              onChange={(e) => setAddress(e.target.value)}
            />
          </label>
          <label>
            <span className="label">Virtual media</span>
            <select
              className="select"
              value={media}
              onChange={(e) => setMedia(e.target.value as typeof media)}
            >
              <option value="licensed">licensed</option>
              <option value="not licensed">not licensed</option>
              <option value="unknown">not known</option>
            </select>
          </label>
          <label>
            <span className="label">Media was read at, MB/s</span>
            <input
              className="input"
              inputMode="decimal"
              value={rate}
              maxLength={12}
              onChange={(e) => setRate(e.target.value)}
            />
          </label>
          <label className="sm:col-span-2">
            <span className="label">Where its log-in is kept, in words; never a password</span>
            <input
              className="input"
              value={login}
              maxLength={200}
              onChange={(e) => setLogin(e.target.value)}
            />
          </label>
        </>
      )}
      <button type="submit" className="btn" disabled={!changed || present === ""}>
        Keep
      </button>
      <div className="col-span-full">
        <Problems problems={problems} />
      </div>
    </form>
  );
}

export function NotesForm() {
  const { document, type } = useMachine();
  return (
    <textarea
      aria-label="Notes"
      className="textarea"
      rows={3}
      maxLength={20_000}
      value={document.notes}
      placeholder="which key opens its boot menu, what is odd about it"
      onChange={(e) => type({ notes: e.target.value })}
    />
  );
}

/** The collector in two ways: saved as a text, or posted back once with a code that names this machine. */
export function CollectorCard({
  issue,
}: {
  issue: () => Promise<Answer<{ code: string; command: string; minutes: number }>>;
}) {
  const [code, setCode] = useState<{ code: string; command: string; minutes: number } | null>(null);
  const [problems, setProblems] = useState<Problem[]>([]);
  return (
    <div className="space-y-2">
      <p>
        On a live system of this machine, as root where you can:{" "}
        <CopyValue value="sh collect.sh > bundle.txt" />. It only reads.{" "}
        <a className="link" href="/collect.sh" download="collect.sh">
          collect.sh
        </a>{" "}
        (on a BSD system{" "}
        <a className="link" href="/collect-bsd.sh" download="collect-bsd.sh">
          collect-bsd.sh
        </a>
        )
      </p>
      {code ? (
        <p>
          Posts back once, within {code.minutes} minutes: <CopyValue value={code.command} />
        </p>
      ) : (
        <button
          type="button"
          className="link"
          onClick={async () => {
            const answer = await issue();
            if (answer.ok) setCode(answer.value);
            else setProblems(answer.problems);
          }}
        >
          or let it post back: make a one-time code
        </button>
      )}
      <Problems problems={problems} />
    </div>
  );
}
