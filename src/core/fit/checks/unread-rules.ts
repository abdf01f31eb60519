import { term } from "../../text";
import { evidence, hit } from "../../finding";
import { profileName } from "../../image";
import { factsOf } from "../../machine";
import type { FitGround } from "../ground";
import { rule, type FitRule } from "./rule";

/** A fact that a requirement of the profile is measured against, and the tool that would tell it. */
interface Asked {
  fact: string;
  /** The value that is asked for, or what kind of number where the rules on it tell which. */
  asks(context: FitGround): string | null;
  isRead(context: FitGround): boolean;
  tool: "memory" | "processor" | "start" | "groups";
}

const wish = (value: string | undefined): string | null => (!value || value === "not needed" ? null : value);

const ASKED: readonly Asked[] = [
  {
    fact: "memory",
    asks: ({ profile }) => (profile?.requirements.memoryBytes.recommended ? "an amount" : null),
    isRead: (c) => Boolean(factsOf(c)?.memory?.installedBytes || factsOf(c)?.memory?.recognisedBytes),
    tool: "memory",
  },
  {
    fact: "cores",
    asks: ({ profile }) => (profile?.requirements.cores.recommended ? "a number" : null),
    isRead: (c) => typeof factsOf(c)?.processors?.cores === "number",
    tool: "processor",
  },
  {
    fact: "architecture",
    asks: ({ profile }) => profile?.requirements.architectures.join(" or ") ?? null,
    isRead: (c) => Boolean(factsOf(c)?.processors?.architecture),
    tool: "processor",
  },
  {
    fact: "boot mode",
    asks: ({ profile }) => profile?.firmware.modes.map(term).join(" or ") ?? null,
    isRead: (c) => factsOf(c)?.firmware?.mode !== undefined,
    tool: "start",
  },
  {
    fact: "virtualisation",
    asks: ({ profile }) => wish(profile?.requirements.virtualisation),
    isRead: (c) => typeof factsOf(c)?.processors?.virtualisation === "boolean",
    tool: "processor",
  },
  {
    fact: "IOMMU",
    asks: ({ profile }) => wish(profile?.requirements.iommu),
    isRead: (c) => typeof factsOf(c)?.processors?.iommu === "boolean",
    tool: "groups",
  },
];

const askedFacts = (asked: string) =>
  asked === "an amount"
    ? ({ asked: "amount" } as const)
    : asked === "a number"
      ? ({ asked: "number" } as const)
      : ({ asked: "value", value: asked } as const);

/** What nobody has read is neither met nor missed: it is said, with the tool that would tell. */
export const unreadRules: readonly FitRule[] = [
  rule("machine.not-read", (context) => {
    if (!context.machine || !context.profile) return null;
    return ASKED.flatMap(({ fact, asks, isRead, tool }) => {
      const asked = asks(context);
      if (asked === null || isRead(context)) return [];
      return {
        ...hit(
          "caution",
          "machine.id",
          { fact, tool, profile: profileName(context), ...askedFacts(asked) },
          evidence(fact, "not collected", "not in any import"),
          evidence("required", asked, `OS profile ${profileName(context)}`),
        ),
        subject: fact,
      };
    });
  }),
];
