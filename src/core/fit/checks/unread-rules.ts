import { evidence, hit } from "../../finding";
import { profileName } from "../../image";
import { factsOf } from "../../machine";
import type { FitGround } from "../ground";
import { rule, type FitRule } from "./rule";

/** A fact that a requirement of the profile is measured against, and the tool that would tell it. */
interface Asked {
  fact: string;
  asks(context: FitGround): string | null;
  isRead(context: FitGround): boolean;
  tool: string;
}

const wish = (value: string | undefined): string | null => (!value || value === "not needed" ? null : value);

const ASKED: readonly Asked[] = [
  {
    fact: "memory",
    asks: ({ profile }) => (profile?.requirements.memoryBytes.recommended ? "an amount" : null),
    isRead: (c) => Boolean(factsOf(c)?.memory?.installedBytes || factsOf(c)?.memory?.recognisedBytes),
    tool: "dmidecode, or the collector on any live system",
  },
  {
    fact: "cores",
    asks: ({ profile }) => (profile?.requirements.cores.recommended ? "a number" : null),
    isRead: (c) => typeof factsOf(c)?.processors?.cores === "number",
    tool: "lscpu -J",
  },
  {
    fact: "architecture",
    asks: ({ profile }) => profile?.requirements.architectures.join(" or ") ?? null,
    isRead: (c) => Boolean(factsOf(c)?.processors?.architecture),
    tool: "lscpu -J",
  },
  {
    fact: "boot mode",
    asks: ({ profile }) => profile?.firmware.modes.join(" or ") ?? null,
    isRead: (c) => factsOf(c)?.firmware?.mode !== undefined,
    tool: "efibootmgr, or the collector on a system that was started as this one will be",
  },
  {
    fact: "virtualisation",
    asks: ({ profile }) => wish(profile?.requirements.virtualisation),
    isRead: (c) => typeof factsOf(c)?.processors?.virtualisation === "boolean",
    tool: "lscpu -J",
  },
  {
    fact: "IOMMU",
    asks: ({ profile }) => wish(profile?.requirements.iommu),
    isRead: (c) => typeof factsOf(c)?.processors?.iommu === "boolean",
    tool: "the collector's list of IOMMU groups",
  },
];

/** What nobody has read is neither met nor missed: it is said, with the tool that would tell. */
export const unreadRules: readonly FitRule[] = [
  rule("machine.not-read", "A", (context) => {
    if (!context.machine || !context.profile) return null;
    return ASKED.flatMap(({ fact, asks, isRead, tool }) => {
      const asked = asks(context);
      if (asked === null || isRead(context)) return [];
      return {
        ...hit(
          "caution",
          "machine.id",
          { fact, asked, tool, profile: profileName(context) },
          evidence(fact, "not read", "no import told it"),
          evidence("asked for", asked, `OS profile ${profileName(context)}`),
        ),
        subject: fact,
      };
    });
  }),
];
