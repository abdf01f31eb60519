"use client";

import { useState } from "react";
import {
  dnsmasqBoot,
  dnsmasqProxy,
  grubFirst,
  iscBoot,
  keaBoot,
  loaders,
  type BootClient,
  type BootPlan,
} from "@/core/netboot";
import { isAddress, sourceProblem } from "@/core/network";
import { DhcpJudge } from "./dhcp-judge";
import { CopyText } from "../frame/copy-text";
import { Ruled } from "../frame/page";

const FOLDER = "/srv/tftp";
const IN_PACKAGE = ["undionly.kpxe", "snponly.efi"];
const listed = (clients: readonly BootClient[]): string =>
  [...new Set(clients.map((c) => c.file))].join(" and no ");

/** What the site's own DHCP server is told, as each program writes it. */
const TEXTS: readonly { name: string; words: string; of: (plan: BootPlan, networks: string[]) => string }[] =
  [
    { name: "dnsmasq", words: "the server that assigns addresses", of: dnsmasqBoot },
    {
      name: "dnsmasq as a second server (proxy DHCP)",
      words: "next to another DHCP server, which continues to assign addresses",
      of: dnsmasqProxy,
    },
    { name: "Kea", words: "part of Dhcp4", of: (plan) => `${JSON.stringify(keaBoot(plan), null, 2)}\n` },
    { name: "ISC syntax", words: "for the whole file, or for one network", of: iscBoot },
  ];

/** What a signed loader is started with: it starts GRUB, which asks Derrick as iPXE does. */
function Signed({ script, loader }: { script: string; loader: string }) {
  const base = new URL(script);
  return (
    <div className="mt-2">
      <p>
        Copy {loader} and the signed GRUB of the same OS family (usually grubx64.efi) to {FOLDER}, and this
        text as grub/grub.cfg next to them. The GRUB image must include the modules http and smbios, and read
        for machines with a console code: with Secure Boot on, it loads no other modules. The network image
        signed by Debian 12 lacks http (tested), so its machines are installed with Secure Boot off, or from a
        medium.
      </p>
      {base.port !== "" && (
        <p className="mt-1 border-l-4 pl-3 border-warning">
          GRUB up to 2.06 requests port 80 only, and this service uses port {base.port}: set DERRICK_BOOT_URL
          to an address without a port for such machines.
        </p>
      )}
      <details className="mt-2">
        <summary className="link cursor-pointer">
          grub/grub.cfg <span className="quiet">– configuration of the signed GRUB</span>
        </summary>
        <CopyText text={grubFirst(base.origin)} />
        <pre className="value mt-1 overflow-x-auto border p-2 text-[0.86rem] border-base-300">
          {grubFirst(base.origin)}
        </pre>
      </details>
    </div>
  );
}

/** Texts for the DHCP server of a site; which loader goes where is told beside them. */
export function DhcpTexts({
  script,
  networks: all,
}: {
  script: string;
  networks: readonly { network: string; prefix: string }[];
}) {
  const networks = all.map((n) => n.network);
  const [tftp, setTftp] = useState("");
  const [http, setHttp] = useState("");
  const [signed, setSigned] = useState("");
  const problem =
    tftp === ""
      ? "Enter the server with the boot loaders: the configuration uses its address."
      : !isAddress(tftp) || tftp.includes(":")
        ? "Enter an IPv4 address: firmware does not resolve names here."
        : (sourceProblem(http) ?? null);
  const plan: BootPlan = {
    ...{ script, tftp, http: http === "" ? null : http, folder: FOLDER },
    ...(signed !== "" && { signed }),
  };
  return (
    <Ruled
      title="DHCP server configuration"
      note="copy it to the server yourself; Derrick does not change it"
    >
      <div className="grid gap-x-8 gap-y-3 md:grid-cols-2">
        <label>
          <span className="label">TFTP server with the boot loaders</span>
          <input
            className="input value"
            value={tftp}
            placeholder="10.61.10.1"
            onChange={(e) => setTftp(e.target.value.trim())}
          />
        </label>
        <label>
          <span className="label">HTTP server with the boot loaders, for UEFI HTTP boot</span>
          <input
            className="input value"
            value={http}
            placeholder="none"
            onChange={(e) => setHttp(e.target.value.trim())}
          />
        </label>
      </div>
      <label className="mt-3 block max-w-xl">
        <span className="label">Signed loader for Secure Boot, instead of iPXE</span>
        <input
          className="input value"
          value={signed}
          placeholder="none; for example shimx64.efi"
          maxLength={80}
          onChange={(e) => setSigned(e.target.value.replace(/[^\w./-]/g, ""))}
        />
      </label>
      {problem ? (
        <p className="quiet mt-2">{problem}</p>
      ) : (
        <>
          <p className="mt-2">
            The boot loaders are in Debian&rsquo;s package ipxe, not in Derrick: copy undionly.kpxe and
            snponly.efi from /usr/lib/ipxe to {FOLDER} of that server. (Its ipxe.efi was found to freeze when
            it should return to the disk.) The package has no{" "}
            {listed(loaders(plan).filter((c) => !IN_PACKAGE.includes(c.file) && c.file !== signed))}: build
            those, or remove their lines. No iPXE of the package is signed: with Secure Boot on, firmware
            refuses it.
          </p>
          {signed !== "" && <Signed script={script} loader={signed} />}
          {TEXTS.map(({ name, words, of }) => (
            <details key={name} className="mt-2">
              <summary className="link cursor-pointer">
                {name} <span className="quiet">– {words}</span>
              </summary>
              <CopyText text={of(plan, networks)} />
              <pre className="value mt-1 overflow-x-auto border p-2 text-[0.86rem] border-base-300">
                {of(plan, networks)}
              </pre>
            </details>
          ))}
        </>
      )}
      <DhcpJudge script={script} prefixes={all.map((n) => n.prefix)} />
    </Ruled>
  );
}
