"use client";

import {
  endKey,
  farPortOf,
  networkUses,
  segmentsOfCable,
  switchPortSchema,
  type Cable,
  type Device,
  type FarPort,
} from "@/core/network";
import type { Port } from "@/core/machine";
import { segmentLook } from "../network/segment-look";
import { cablePath, layWiring, PORT } from "../network/wiring-layout";
import type { PartProps } from "./zone-props";

/** The machine's ports, and the cable of each up to the switch, in the colour and pattern of the network that goes over it. */
export default function NetworkWiring({ view, sheet }: PartProps) {
  const { site, machine } = view.context;
  if (!machine || !site) return <p className="quiet">Choose the machine first.</p>;
  const ports = machine.document.facts.ports.filter((p) => p.kind === "ethernet");
  const fars = ports.map((p) => ({ p, far: farPortOf({ site }, p.mac) }));
  const uses = networkUses({ sheet, site });
  const devices = [...new Set(fars.flatMap(({ far }) => far?.device ?? []))].map((d): Device => {
    const names = fars.flatMap(({ far }) => (far?.device === d ? [far.name] : []));
    const described = names.map(
      (n) => d.ports.find((p) => p.name === n) ?? switchPortSchema.parse({ name: n }),
    );
    return { ...d, portCount: 0, ports: described };
  });
  const layout = layWiring([{ name: machine.name, ports }], devices);
  const cables = fars.flatMap(({ p, far }): Cable[] =>
    far ? [{ ...far.cable, a: { mac: p.mac }, b: { device: far.device.id, port: far.name } }] : [],
  );
  const usedBy = (mac: string): string =>
    [...new Set(uses.filter((u) => u.ports.includes(mac)).map((u) => u.segment.name))].join(", ");
  return (
    <figure>
      <svg
        viewBox={`-8 -4 ${layout.width + 16} ${layout.height + 8}`}
        className="w-full max-w-4xl"
        fill="none"
        stroke="currentColor"
        role="img"
        aria-label={`Cables of ${machine.name}: ${fars.map(({ p, far }) => `${p.seenAs} to ${far ? `${far.device.name} port ${far.name}` : "no planned port"}`).join("; ")}`}
      >
        {cables.map((c) => {
          const carried = segmentsOfCable(site, site.segments, c);
          const look = segmentLook(site.segments, carried[0]?.id ?? null);
          return (
            <path
              key={c.id}
              className={look.colour}
              d={cablePath(layout, c) ?? ""}
              strokeWidth={carried.length > 1 ? 4 : 2.5}
              strokeDasharray={look.dashes}
            />
          );
        })}
        {layout.boxes.map((box) => (
          <g key={box.key}>
            <text x={box.x} y={box.y + 13} fontSize="14" fontWeight="600" stroke="none" fill="currentColor">
              {box.name}
            </text>
            {box.ports.map((p) => {
              const isMachine = "mac" in p.end;
              return (
                <g key={endKey(p.end)}>
                  <rect
                    x={p.x - PORT / 2}
                    y={p.y - PORT / 2}
                    width={PORT}
                    height={PORT}
                    strokeWidth={isMachine && "mac" in p.end && p.end.mac === sheet.network.port ? 3 : 1.3}
                    className="fill-base-100"
                  />
                  <text
                    x={isMachine ? p.x - PORT / 2 - 6 : p.x}
                    y={p.y + 4}
                    fontSize={isMachine ? 12 : 10}
                    textAnchor={isMachine ? "end" : "middle"}
                    stroke="none"
                    fill="currentColor"
                  >
                    {p.name}
                  </text>
                </g>
              );
            })}
          </g>
        ))}
      </svg>
      <PortTable fars={fars} usedBy={usedBy} />
    </figure>
  );
}

function PortTable({
  fars,
  usedBy,
}: {
  fars: readonly { p: Port; far: FarPort | null }[];
  usedBy: (mac: string) => string;
}) {
  const isIdle = ({ p, far }: (typeof fars)[number]): boolean =>
    !far && usedBy(p.mac) === "" && p.link !== "up";
  const idle = fars.filter(isIdle).map(({ p }) => p.seenAs);
  return (
    <table className="table max-w-4xl">
      <thead>
        <tr>
          <th>
            <span className="label">Port</span>
          </th>
          <th>
            <span className="label">MAC</span>
          </th>
          <th>
            <span className="label">Connected to</span>
          </th>
          <th>
            <span className="label">VLANs</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {fars
          .filter((f) => !isIdle(f))
          .map(({ p, far }) => (
            <tr key={p.mac}>
              <td className="value">{p.seenAs}</td>
              <td className="value">{p.mac}</td>
              <td>
                {far ? `${far.device.name} port ${far.name}` : "no cable planned"}
                {p.link === "up" && !far && <span className="quiet"> but link is up</span>}
              </td>
              <td>{usedBy(p.mac) || <span className="quiet">none</span>}</td>
            </tr>
          ))}
        {idle.length > 0 && (
          <tr>
            <td colSpan={4} className="quiet">
              {idle.join(", ")}: no cable planned and not used
            </td>
          </tr>
        )}
      </tbody>
    </table>
  );
}
