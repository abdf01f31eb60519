import { evidence, hit } from "../../finding";
import { factsOf, sourceWords } from "../../machine";
import { targetOf } from "../../storage";
import { reachesSan } from "../seen";
import { rule, type BootRule } from "./rule";

/** Rules about a system on a volume of a storage network. */
export const sanRules: readonly BootRule[] = [
  rule("boot.san-initiator", (context) => {
    const target = targetOf(context);
    const facts = factsOf(context);
    const hidden = facts && target?.san ? reachesSan(facts) : null;
    if (!target?.san || !hidden) return null;
    const isUnread = hidden === "unknown";
    return hit(
      isUnread ? "caution" : "stop",
      "storage.target",
      { volume: `The ${target.san} volume`, reach: isUnread ? "unread" : "none" },
      evidence("reached over", target.san, sourceWords(context, `drives.${target.id}.san`)),
      evidence(
        "boot entries",
        isUnread ? "not collected" : "none leads to a storage network",
        sourceWords(context, "firmware.entries"),
      ),
    );
  }),

  rule("boot.san-path", (context) => {
    const target = targetOf(context);
    return target?.san && target.sanPaths === 1
      ? hit(
          "caution",
          "storage.target",
          { volume: `The ${target.san} volume` },
          evidence("paths", "1", sourceWords(context, `drives.${target.id}.sanPaths`)),
        )
      : null;
  }),
];
