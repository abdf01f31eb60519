"use client";

import dynamic from "next/dynamic";
import { Unfold } from "../fields/unfold";
import type { PartProps } from "./zone-props";

// What stands behind the address is drawn on demand, and its scripts come with it.
const loading = () => <p className="quiet">…</p>;
const Interfaces = dynamic(() => import("./network-interfaces"), { loading });
const Wiring = dynamic(() => import("./network-wiring"), { loading });
const Services = dynamic(() => import("./network-services"), { loading });
const Files = dynamic(() => import("./network-files"), { loading });
const Console = dynamic(() => import("./network-console"), { loading });

const many = (n: number, one: string): string => (n === 0 ? "none" : `${n} ${one}${n === 1 ? "" : "s"}`);

/** What stands on the ports, where their cables go, who may reach what, what the console will show, and the files. */
export function NetworkParts(props: PartProps) {
  const { interfaces, services } = props.sheet.network;
  const marked = (path: "network.interfaces" | "network.services" | "network.carrier") =>
    props.marks(path).some((m) => m.severity === "stop");
  return (
    <div>
      <Unfold
        title={`Bonds, VLANs, bridges, virtual switches: ${many(interfaces.length, "interface")}`}
        open={marked("network.interfaces") || marked("network.carrier")}
      >
        <Interfaces {...props} />
      </Unfold>
      <Unfold title="Switch connections">
        <Wiring {...props} />
      </Unfold>
      <Unfold title={`Service access: ${many(services.length, "service")}`} open={marked("network.services")}>
        <Services {...props} />
      </Unfold>
      <Unfold title="Expected console output">
        <Console {...props} />
      </Unfold>
      <Unfold title="Network files and commands">
        <Files {...props} />
      </Unfold>
    </div>
  );
}
