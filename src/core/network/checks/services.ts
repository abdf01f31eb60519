import { term } from "../../text";
import { evidence, hit } from "../../finding";
import { isOpenOutside, serviceWords, waysNotConsidered, WAYS_IN } from "../service";
import { rule, type NetworkRule } from "./rule";

const AT = "network.services" as const;

/** Rules about what the machine answers with, and to whom: a door from outside needs a reason, an end, and proof first. */
export const SERVICE_CHECKS: readonly NetworkRule[] = [
  rule("network.door", ({ sheet, today }) =>
    sheet.network.services.filter(isOpenOutside).flatMap((service, i) => {
      const left = waysNotConsidered(service);
      const fault =
        service.why.trim() === ""
          ? ({ state: "no reason" } as const)
          : service.until === null
            ? ({ state: "no end" } as const)
            : service.until < today
              ? ({ state: "over", day: service.until } as const)
              : left.length > 0
                ? ({ state: "not considered", way: term(left[0] ?? "") } as const)
                : null;
      return fault
        ? {
            ...hit(
              "stop",
              AT,
              { service: serviceWords(service), ...fault },
              evidence("open from", "outside", "this sheet"),
              evidence("reason", service.why || "none", "this sheet"),
              evidence("until", service.until ?? "no day", "this sheet"),
              evidence(
                "less exposed options",
                `${WAYS_IN.length - left.length} of ${WAYS_IN.length} considered`,
                "this sheet",
              ),
            ),
            subject: `${i} ${service.port}/${service.protocol}`,
          }
        : [];
    }),
  ),

  rule("network.door-unproven", ({ sheet }) =>
    sheet.network.services.filter(isOpenOutside).flatMap((service, i) => {
      const fault =
        service.manages && service.logIn !== "key"
          ? ({
              state:
                service.logIn === "password" ? "password" : service.logIn === "none" ? "open" : "not told",
            } as const)
          : service.hardened === null || service.hardened.how.trim() === ""
            ? ({ state: "not proven" } as const)
            : null;
      return fault
        ? {
            ...hit(
              "stop",
              AT,
              { service: serviceWords(service), ...fault },
              evidence("log-in", service.logIn, "this sheet"),
              evidence(
                "test before opening",
                service.hardened ? `${service.hardened.on}: ${service.hardened.how}` : "nothing",
                "this sheet",
              ),
            ),
            subject: `${i} ${service.port}/${service.protocol}`,
          }
        : [];
    }),
  ),

  rule("network.door-manages", ({ sheet }) =>
    sheet.network.services
      .filter((s) => isOpenOutside(s) && s.manages)
      .map((service, i) => ({
        ...hit(
          "caution",
          AT,
          { service: serviceWords(service) },
          evidence("open from", "outside", "this sheet"),
          evidence("gives", "management access", "this sheet"),
        ),
        subject: `${i} ${service.port}/${service.protocol}`,
      })),
  ),
];
