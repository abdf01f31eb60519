"use client";

import dynamic from "next/dynamic";
import Link from "next/link";
import { originOf } from "./origin";
import { SelectField, TextField } from "../fields/fields";
import type { PartProps, ZoneProps } from "./zone-props";

const Software = dynamic(() => import("./software-fields"), { loading: () => <p className="quiet">…</p> });
const Accounts = dynamic(() => import("./accounts-table"), { loading: () => <p className="quiet">…</p> });

export function AnswersZone({ view, sheet, edit, marks }: ZoneProps) {
  const { answers } = sheet;
  const { profile, site } = view.context;
  const keyboards = [
    ...new Set([...(profile?.keyboards ?? []), site?.keyboard ?? "", answers.keyboard].filter(Boolean)),
  ];
  return (
    <div className="space-y-3">
      <div className="grid gap-x-8 gap-y-3 md:grid-cols-2">
        <HostName {...{ view, sheet, edit, marks }} />
        <TextField
          path="answers.domain"
          label="Domain"
          marks={marks("answers.domain")}
          value={answers.domain}
          onChange={(v) => edit({ "answers.domain": v.trim() })}
          hint={
            site?.domain && site.domain !== answers.domain
              ? `site default: ${site.domain}`
              : originOf("answers.domain", sheet, view.context)
          }
        />
        <SelectField
          path="answers.keyboard"
          label="Console keyboard layout"
          marks={marks("answers.keyboard")}
          hint={originOf("answers.keyboard", sheet, view.context)}
          value={answers.keyboard}
          empty="choose…"
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
          label="Credential location"
          marks={marks("answers.secretsKept")}
          value={answers.secretsKept}
          placeholder="safe, envelope 14 (never the password)"
          onChange={(v) => edit({ "answers.secretsKept": v })}
          hint={profile?.passwords.words}
        />
      </div>
      <Software {...{ view, sheet, edit, marks }} />
      <Accounts
        accounts={answers.accounts}
        marks={marks("answers.accounts")}
        onChange={(accounts) => edit({ "answers.accounts": accounts })}
        suggested={profile?.accounts.superUser ?? "root"}
      />
      <p>
        <Link className="link" href={`/builds/${view.build.id}/answers`}>
          Answer file
        </Link>
        <span className="quiet">
          : what the installer of this OS family reads, with the source of each line
        </span>
      </p>
      <p>
        <Link className="link" href={`/builds/${view.build.id}/passwords`}>
          Passwords
        </Link>
        <span className="quiet">: rules, strength, and keyboard layouts</span>
      </p>
    </div>
  );
}

/** The name of the host, with the next free one where the site has a pattern that it does not follow. */
function HostName({ view, sheet, edit, marks }: PartProps) {
  const { hostName } = sheet.answers;
  const { nextName } = view;
  return (
    <TextField
      path="answers.hostName"
      label="Host name"
      marks={marks("answers.hostName")}
      hint={
        nextName && nextName !== hostName ? (
          <button type="button" className="link" onClick={() => edit({ "answers.hostName": nextName })}>
            next free: <span className="value">{nextName}</span>
          </button>
        ) : (
          originOf("answers.hostName", sheet, view.context)
        )
      }
      value={hostName}
      maxLength={64}
      onChange={(v) => edit({ "answers.hostName": v.trim() })}
    />
  );
}
