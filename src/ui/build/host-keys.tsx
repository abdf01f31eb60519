"use client";

import { useEffect, useState } from "react";
import { readHostKeys } from "@/core/network";
import { ParsedField } from "../fields/fields";
import type { PartProps } from "./zone-props";

const keys = {
  format: (all: string[]) => all.join("\n"),
  parse(text: string): { value: string[] } | { problem: string } {
    const { keys: read, wrong } = readHostKeys(text);
    return wrong.length > 0
      ? {
          problem: `"${wrong[0]!.slice(0, 40)}" is not a public host key: host keys begin with ssh-ed25519, ssh-rsa or ecdsa-sha2.`,
        }
      : { value: read };
  },
};

/** "SHA256:..." of a key, as ssh-keygen and ssh print it: base64 without the filling (RFC 4648, 3.2). */
async function fingerprint(key: string): Promise<string> {
  const blob = Uint8Array.from(atob(key.split(" ")[1] ?? ""), (c) => c.charCodeAt(0));
  // Browsers hash on loopback and over HTTPS only; elsewhere the person is told to ask ssh-keygen.
  if (!globalThis.isSecureContext)
    return "not computed: this page was opened without HTTPS. Use ssh-keygen -lf.";
  const hash = new Uint8Array(await crypto.subtle.digest("SHA-256", blob));
  return `SHA256:${btoa(String.fromCharCode(...hash)).replace(/=+$/, "")}`;
}

/** The host keys that the console printed, and the fingerprints that the first log-in must show. */
export function HostKeys({ sheet, edit, marks }: PartProps) {
  const { hostKeys } = sheet.network;
  const [prints, setPrints] = useState<string[]>([]);
  useEffect(() => {
    let isCurrent = true;
    void Promise.all(hostKeys.map((k) => fingerprint(k).catch(() => "not a valid key"))).then(
      (all) => isCurrent && setPrints(all),
    );
    return () => {
      isCurrent = false;
    };
  }, [hostKeys]);
  return (
    <div className="mt-3 max-w-4xl">
      <ParsedField
        path="network.hostKeys"
        label="Host keys, as the console prints them (cat /etc/ssh/ssh_host_*_key.pub)"
        marks={marks("network.hostKeys")}
        rows={2}
        value={hostKeys}
        {...keys}
        onChange={(value) => edit({ "network.hostKeys": value })}
        hint="Public keys only. They are added to the known_hosts file of the site."
      />
      {hostKeys.length > 0 && (
        <ul aria-label="Fingerprints to expect at the first login">
          {hostKeys.map((key, i) => (
            <li key={key} className="value">
              {key.split(" ")[0]} {prints[i] ?? "…"}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
