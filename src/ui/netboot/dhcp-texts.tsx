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
    { name: "dnsmasq", words: "one that gives out addresses", of: dnsmasqBoot },
    {
      name: "dnsmasq as a second server",
      words: "beside a server that is not yours, which goes on giving out the addresses",
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
        Put {loader} and the signed GRUB of the same family (mostly grubx64.efi) into {FOLDER}, and this text
        as grub/grub.cfg beside them. GRUB needs the modules http and smbios in it, and read for machines that
        are asked for a code: under secure boot it loads none. The one that Debian 12 has signed for the
        network has no http (seen), so that its machines are installed with secure boot off, or from a medium.
      </p>
      {base.port !== "" && (
        <p className="mt-1 border-l-4 pl-3 border-warning">
          GRUB up to 2.06 asks on port 80 alone, and this service listens on {base.port}: set DERRICK_BOOT_URL
          to an address without a port for such machines.
        </p>
      )}
      <details className="mt-2">
        <summary className="link cursor-pointer">
          grub/grub.cfg <span className="quiet">– what the signed GRUB is started with</span>
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
      ? "Say which server has the boot loaders; the texts are written with its address."
      : !isAddress(tftp) || tftp.includes(":")
        ? "The server with the boot loaders is named by its IPv4 address: firmware asks no name server here."
        : (sourceProblem(http) ?? null);
  const plan: BootPlan = {
    ...{ script, tftp, http: http === "" ? null : http, folder: FOLDER },
    ...(signed !== "" && { signed }),
  };
  return (
    <Ruled title="For the site's DHCP server" note="nothing of it is sent anywhere: it is copied by a person">
      <div className="grid gap-x-8 gap-y-3 sm:grid-cols-2">
        <label>
          <span className="label">Server with the boot loaders, by TFTP</span>
          <input
            className="input value"
            value={tftp}
            placeholder="10.61.10.1"
            onChange={(e) => setTftp(e.target.value.trim())}
          />
        </label>
        <label>
          <span className="label">The same by HTTP, for firmware that boots over it</span>
          <input
            className="input value"
            value={http}
            placeholder="none"
            onChange={(e) => setHttp(e.target.value.trim())}
          />
        </label>
      </div>
      <label className="mt-3 block max-w-xl">
        <span className="label">Signed loader for PCs with secure boot on, instead of iPXE</span>
        <input
          className="input value"
          value={signed}
          placeholder="none; such as shimx64.efi"
          maxLength={80}
          onChange={(e) => setSigned(e.target.value.replace(/[^\w./-]/g, ""))}
        />
      </label>
      {problem ? (
        <p className="quiet mt-2">{problem}</p>
      ) : (
        <>
          <p className="mt-2">
            The loaders come from Debian&rsquo;s package ipxe and not from Derrick: put undionly.kpxe and
            snponly.efi from /usr/lib/ipxe into {FOLDER} of that server. (Its ipxe.efi was seen to stand still
            where it should leave for the disk.) The package has no{" "}
            {listed(loaders(plan).filter((c) => !IN_PACKAGE.includes(c.file) && c.file !== signed))}: build
            those, or leave their lines out. No iPXE of it is signed: with secure boot on, firmware refuses
            it.
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
