"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Done } from "@/contract";
import { sealedAs } from "@/core/parameter";
import type { KnownSecret } from "@/core/identity";
import { Problems } from "../frame/problems";

/** Values that are typed once, sealed, and never shown again: an enrolment key, a licence. */
export function SecretParameters({
  names,
  known,
  seal,
}: {
  names: readonly string[];
  known: readonly KnownSecret[];
  seal: (name: string, value: string) => Promise<Done>;
}) {
  return (
    <div className="space-y-3">
      {names.map((name) => (
        <One
          key={name}
          name={name}
          isSealed={known.some((k) => k.opens === sealedAs(name) && k.isSealed && !k.isLost)}
          seal={seal.bind(null, name)}
        />
      ))}
    </div>
  );
}

function One({
  name,
  isSealed,
  seal,
}: {
  name: string;
  isSealed: boolean;
  seal: (value: string) => Promise<Done>;
}) {
  const router = useRouter();
  const [value, setValue] = useState("");
  const [problems, setProblems] = useState<readonly { message: string }[]>([]);
  const send = async (): Promise<void> => {
    const answer = await seal(value);
    setProblems(answer.ok ? [] : (answer.problems ?? []));
    if (!answer.ok) return;
    setValue("");
    router.refresh();
  };
  return (
    <form
      className="max-w-xl"
      onSubmit={(e) => {
        e.preventDefault();
        if (value !== "") void send();
      }}
    >
      <Problems problems={problems} title="Not stored" />
      <label className="block">
        <span className="label">
          {name}
          {isSealed
            ? ": stored encrypted; a new value replaces it"
            : ": not stored yet, so no answer file is generated"}
        </span>
        <span className="flex gap-2">
          <input
            className="input value flex-1"
            type="password"
            autoComplete="off"
            value={value}
            onChange={(e) => setValue(e.target.value)}
          />
          <button type="submit" className="btn" disabled={value === ""}>
            Store {name} encrypted
          </button>
        </span>
      </label>
    </form>
  );
}
