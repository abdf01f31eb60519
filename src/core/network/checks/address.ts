import { term } from "../../text";
import { evidence, hit } from "../../finding";
import { factsOf } from "../../machine";
import { addressKey, contains, edgeOf, inRange, isAddress } from "../address";
import { portOf, segmentOf } from "../ground";
import { ownersOf } from "../owners";
import { rule, type NetworkRule } from "./rule";

const ADDRESS = "network.address" as const;

/** Rules about the address, the port and what the machine reaches. */
export const ADDRESS_CHECKS: readonly NetworkRule[] = [
  rule("network.no-port", (context) => {
    const ports = factsOf(context)?.ports ?? [];
    const { port } = context.sheet.network;
    if (!context.machine || ports.some((p) => p.mac === port)) return null;
    return hit(
      ports.length === 0 ? "note" : "caution",
      "network.port",
      port ? { state: "gone", port } : { state: "none" },
      evidence("ports", ports.map((p) => p.mac).join(", ") || "none imported", context.machine.name),
    );
  }),

  rule("network.wireless-port", (context) => {
    const port = portOf(context);
    const wired = factsOf(context)?.ports.find((p) => p.kind === "ethernet");
    if (port?.kind !== "wireless" || !wired) return null;
    return hit(
      "caution",
      "network.port",
      { port: port.seenAs, wired: wired.seenAs },
      evidence("chosen", `${port.seenAs}, wireless`, "this sheet"),
      evidence("wired", wired.mac, "last import"),
    );
  }),

  rule("network.no-link", (context) => {
    const port = portOf(context);
    if (port?.link !== "down") return null;
    const others = (factsOf(context)?.ports ?? []).filter((p) => p.link === "up" && p.mac !== port.mac);
    return hit(
      "caution",
      "network.port",
      {
        port: port.seenAs,
        ...(others.length === 0
          ? { others: "none" }
          : { others: "some", ports: others.map((p) => p.seenAs).join(", ") }),
      },
      evidence("link", "down", "last import"),
    );
  }),

  rule("network.no-address", ({ sheet }) =>
    sheet.network.school !== "dynamic" && sheet.network.address.trim() === ""
      ? hit("stop", ADDRESS, { school: term(sheet.network.school) })
      : null,
  ),

  rule("network.not-an-address", ({ sheet }) =>
    sheet.network.school !== "dynamic" &&
    sheet.network.address.trim() !== "" &&
    !isAddress(sheet.network.address)
      ? hit(
          "stop",
          ADDRESS,
          { typed: sheet.network.address },
          evidence("typed", sheet.network.address, "this sheet"),
        )
      : null,
  ),

  rule("network.no-segment", (context) => {
    const { school, segment } = context.sheet.network;
    if (!context.site || school === "dynamic" || segmentOf(context)) return null;
    return hit(
      "stop",
      "network.segment",
      { school: term(school), ...(segment ? { state: "gone", segment } : { state: "none" }) },
      evidence("segment", segment ?? "none", "this sheet"),
      evidence("segments", context.site.segments.map((s) => s.name).join(", ") || "none", context.site.name),
    );
  }),

  rule("network.outside", (context) => {
    const segment = segmentOf(context);
    const { address, school } = context.sheet.network;
    if (!segment || school === "dynamic" || !isAddress(address) || contains(segment.prefix, address))
      return null;
    return hit(
      "stop",
      ADDRESS,
      { address, prefix: segment.prefix },
      evidence("address", address, "this sheet"),
      evidence("prefix", segment.prefix, `network ${segment.name}`),
    );
  }),

  rule("network.edge", (context) => {
    const segment = segmentOf(context);
    const { address, school } = context.sheet.network;
    const edge = segment && school !== "dynamic" ? edgeOf(segment.prefix, address) : null;
    if (!segment || !edge) return null;
    return hit(
      "stop",
      ADDRESS,
      { address, edge, prefix: segment.prefix },
      evidence(`${edge} address of`, segment.prefix, `network ${segment.name}`),
    );
  }),

  rule("network.taken", (context) => {
    const { address, school } = context.sheet.network;
    if (school === "dynamic") return null;
    return ownersOf(context, address, segmentOf(context)).map((owner) => ({
      ...hit(
        "stop",
        ADDRESS,
        { address, owner },
        evidence("this build", address, "this sheet"),
        evidence(owner, address, "the same address"),
      ),
      subject: owner,
    }));
  }),

  rule("network.in-pool", (context) => {
    const { address, school } = context.sheet.network;
    const segment = segmentOf(context);
    const pool = segment?.dhcp.find((range) => inRange(address, range));
    if (school !== "fixed" || !segment || !pool) return null;
    return hit(
      "stop",
      ADDRESS,
      { address, from: pool.from, to: pool.to },
      evidence("static address", address, "this sheet"),
      evidence("DHCP range", `${pool.from} to ${pool.to}`, `network ${segment.name}`),
    );
  }),

  rule("network.not-reserved", (context) => {
    const { address, school, port } = context.sheet.network;
    const segment = segmentOf(context);
    if (school !== "reserved" || !segment || !port || !isAddress(address)) return null;
    const reservation = segment.reservations.find((r) => r.mac.toLowerCase() === port);
    if (reservation?.address === address) return null;
    return hit(
      "caution",
      ADDRESS,
      { port, address, ...(reservation ? { has: "other", reserved: reservation.address } : { has: "none" }) },
      evidence("planned", `${port} gets ${address}`, "this sheet"),
      evidence("reservation for this MAC", reservation?.address ?? "none", `network ${segment.name}`),
    );
  }),

  rule("network.gateway", (context) => {
    const { gateway, address, school } = context.sheet.network;
    const segment = segmentOf(context);
    if (school !== "fixed" || gateway.trim() === "") return null;
    const why = !isAddress(gateway)
      ? "no address"
      : addressKey(gateway) === addressKey(address)
        ? "own"
        : segment && !contains(segment.prefix, gateway)
          ? "outside"
          : null;
    return why
      ? hit(
          "stop",
          "network.gateway",
          { gateway, why, prefix: segment?.prefix },
          evidence("gateway", gateway, "this sheet"),
          evidence("prefix", segment?.prefix ?? "no network chosen", segment?.name ?? "this sheet"),
        )
      : null;
  }),

  rule("network.no-gateway", (context) => {
    const segment = segmentOf(context);
    if (
      context.sheet.network.school !== "fixed" ||
      context.sheet.network.gateway !== "" ||
      !segment ||
      segment.purpose === "isolated lab"
    )
      return null;
    return hit(
      "note",
      "network.gateway",
      { segment: segment.name },
      evidence("gateway", "none", "this sheet"),
    );
  }),

  rule("network.name-servers", ({ sheet }) => {
    const bad = sheet.network.nameServers.filter((s) => !isAddress(s));
    if (bad.length > 0)
      return hit(
        "stop",
        "network.nameServers",
        { state: "wrong", typed: bad.join(", ") },
        evidence("typed", bad.join(", "), "this sheet"),
      );
    return sheet.network.school === "fixed" && sheet.network.nameServers.length === 0
      ? hit(
          "caution",
          "network.nameServers",
          { state: "none" },
          evidence("address", "static, so DHCP provides none", "this sheet"),
        )
      : null;
  }),

  rule("network.dynamic", (context) => {
    const { school, fixedBy } = context.sheet.network;
    if (school !== "dynamic" || (fixedBy !== null && fixedBy >= context.today)) return null;
    return hit(
      "caution",
      "network.school",
      fixedBy ? { state: "over", day: fixedBy } : { state: "open" },
      evidence("address", fixedBy ? `dynamic, static by ${fixedBy}` : "dynamic", "this sheet"),
    );
  }),

  rule("network.headless", (ground) => {
    const controller = factsOf(ground)?.controller;
    return ground.sheet.network.school === "dynamic" && controller?.present === false
      ? hit(
          "stop",
          "network.school",
          {},
          evidence("address", "dynamic", "this sheet"),
          evidence("management controller", "none", "last import"),
        )
      : null;
  }),
];
