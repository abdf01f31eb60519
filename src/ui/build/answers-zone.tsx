"use client";

import Link from "next/link";
import type { Sheet } from "@/core/sheet";
import { originOf } from "./origin";
import { Field, SelectField, TextField } from "../fields/fields";
import type { ZoneProps } from "./zone-props";

type Account = Sheet["answers"]["accounts"][number];
const ROLES: Account["role"][] = ["super-user", "administrator", "service"];
const LOG_INS: Account["logIn"][] = ["password", "key", "none"];

export function AnswersZone({ view, sheet, edit, marks }: ZoneProps) {
  const { answers } = sheet;
  const { profile, site } = view.context;
  const keyboards = [
    ...new Set([...(profile?.keyboards ?? []), site?.keyboard ?? "", answers.keyboard].filter(Boolean)),
  ];
  return (
    <div className="space-y-3">
      <div className="grid gap-x-8 gap-y-3 sm:grid-cols-2">
        <TextField
          path="answers.hostName"
          label="Host name"
          marks={marks("answers.hostName")}
          hint={originOf("answers.hostName", sheet, view.context)}
          value={answers.hostName}
          maxLength={64}
          onChange={(v) => edit({ "answers.hostName": v.trim() })}
        />
        <TextField
          path="answers.domain"
          label="Domain"
          marks={marks("answers.domain")}
          value={answers.domain}
          onChange={(v) => edit({ "answers.domain": v.trim() })}
          hint={
            site?.domain && site.domain !== answers.domain
              ? `the site's is ${site.domain}`
              : originOf("answers.domain", sheet, view.context)
          }
        />
        <SelectField
          path="answers.keyboard"
          label="Keyboard of the console"
          marks={marks("answers.keyboard")}
          hint={originOf("answers.keyboard", sheet, view.context)}
          value={answers.keyboard}
          empty="choose …"
          options={keyboards.map((k) => ({ value: k, text: k }))}
          onChange={(v) => edit({ "answers.keyboard": v })}
        />
        <TextField
          path="answers.locale"
          label="Locale"
          marks={marks("answers.locale")}
          hint={originOf("answers.locale", sheet, view.context)}
          value={answers.locale}
          placeholder="en_GB.UTF-8"
          onChange={(v) => edit({ "answers.locale": v.trim() })}
        />
        <TextField
          path="answers.timeZone"
          label="Time zone"
          marks={marks("answers.timeZone")}
          hint={originOf("answers.timeZone", sheet, view.context)}
          value={answers.timeZone}
          placeholder="Europe/London"
          onChange={(v) => edit({ "answers.timeZone": v.trim() })}
        />
        <TextField
          path="answers.secretsKept"
          label="Where the passwords are kept"
          marks={marks("answers.secretsKept")}
          value={answers.secretsKept}
          placeholder="safe, envelope 14 – never the password"
          onChange={(v) => edit({ "answers.secretsKept": v })}
          hint={profile?.passwords.words}
        />
      </div>
      <Accounts
        accounts={answers.accounts}
        marks={marks("answers.accounts")}
        onChange={(accounts) => edit({ "answers.accounts": accounts })}
        suggested={profile?.accounts.superUser ?? "root"}
      />
      <p>
        <Link className="link" href={`/builds/${view.build.id}/answers`}>
          the answer file
        </Link>
        <span className="quiet">: what the installer of this family reads, line by line with its fields</span>
      </p>
    </div>
  );
}

function Accounts({
  accounts,
  marks,
  onChange,
  suggested,
}: {
  accounts: Account[];
  marks: ReturnType<ZoneProps["marks"]>;
  onChange: (accounts: Account[]) => void;
  suggested: string;
}) {
  const change = (i: number, part: Partial<Account>) =>
    onChange(accounts.map((a, j) => (j === i ? { ...a, ...part } : a)));
  const next: Account = accounts.some((a) => a.role === "super-user")
    ? { name: "", role: "administrator", logIn: "key" }
    : { name: suggested, role: "super-user", logIn: "password" };
  return (
    <Field path="answers.accounts" label="Accounts, by name only" marks={marks}>
      <table className="table">
        <thead className="sr-only">
          <tr>
            <th>Name</th>
            <th>Role</th>
            <th>Log-in</th>
            <th>Remove</th>
          </tr>
        </thead>
        <tbody>
          {accounts.map((a, i) => (
            <tr key={i}>
              <td>
                <input
                  aria-label={`Name of account ${i + 1}`}
                  className="input"
                  value={a.name}
                  maxLength={40}
                  autoComplete="off"
                  onChange={(e) => change(i, { name: e.target.value })}
                />
              </td>
              <td>
                <select
                  aria-label={`Role of ${a.name || `account ${i + 1}`}`}
                  className="select"
                  value={a.role}
                  onChange={(e) => change(i, { role: e.target.value as Account["role"] })}
                >
                  {ROLES.map((r) => (
                    <option key={r}>{r}</option>
                  ))}
                </select>
              </td>
              <td>
                <select
                  aria-label={`Log-in of ${a.name || `account ${i + 1}`}`}
                  className="select"
                  value={a.logIn}
                  onChange={(e) => change(i, { logIn: e.target.value as Account["logIn"] })}
                >
                  {LOG_INS.map((l) => (
                    <option key={l} value={l}>
                      {l === "none" ? "no log-in" : `by ${l}`}
                    </option>
                  ))}
                </select>
              </td>
              <td className="w-20">
                <button
                  type="button"
                  className="link quiet"
                  onClick={() => onChange(accounts.filter((_, j) => j !== i))}
                >
                  remove
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <button type="button" className="link mt-1" onClick={() => onChange([...accounts, next])}>
        add {next.role === "super-user" ? "the super-user" : "an administrator"}
      </button>
    </Field>
  );
}
