import { z } from "zod";
import { isOpenOutside, serviceWords } from "../../network";
import type { BuildBasis } from "../../procedure";
import { term } from "../../text";
import { formatDateTime } from "../../units";
import { ofBuild, section, type RecordGround } from "./section";

/** What a build stands on; a section of another kind never asks. */
function basisOf({ procedure }: RecordGround): BuildBasis {
  if (procedure.kind !== "build") throw new Error(`A ${procedure.kind} has no sheet.`);
  return procedure.basis;
}

/** What the run knows of the checksum: compared in it, by whom and when, or as it stood at the start. */
function checksumWords(ground: RecordGround): string {
  const { procedure, log } = ground;
  const { image } = basisOf(ground);
  const done = log.flatMap(({ at, event }) => {
    const step = event.kind === "as expected" ? procedure.steps.find((s) => s.id === event.step) : undefined;
    const compared = step?.deeds.find((d) => d.kind === "checksum compared");
    return compared ? [{ at, by: event.by, image: compared.image }] : [];
  });
  const last = done.findLast((d) => d.image === image.name);
  return last
    ? `matches, compared in this run by ${last.by}, ${formatDateTime(last.at, procedure.site.timeZone)}`
    : image.check;
}

/** What was installed, and how it is reached. It names places where secrets are kept, and holds none. */
export const installed = section(
  ofBuild,
  {
    image: z.object({ name: z.string(), profile: z.string(), checksum: z.string() }).optional(),
    reach: z
      .object({
        management: z.string(),
        address: z.string(),
        hostName: z.string(),
        accounts: z.array(z.string()),
        secretsKept: z.string(),
      })
      .optional(),
  },
  (ground) => {
    const { image, profile, management, sheet } = basisOf(ground);
    const { answers, network } = sheet;
    return {
      image: { name: image.name, profile, checksum: checksumWords(ground) },
      reach: {
        management,
        address: network.address || network.school,
        hostName: [answers.hostName, answers.domain].filter(Boolean).join("."),
        accounts: answers.accounts.map((a) => `${a.name} (${term(a.role)}, login: ${a.logIn})`),
        secretsKept: answers.secretsKept,
      },
    };
  },
);

/** What became of the drives, as the plan said. */
export const drives = section(
  ofBuild,
  {
    drives: z
      .object({
        target: z.string(),
        layout: z.string().default("single drive"),
        leftAlone: z.array(z.string()),
        free: z.array(z.string()).default([]),
      })
      .optional(),
  },
  (ground) => {
    const { drives: planned, sheet } = basisOf(ground);
    return {
      drives: {
        target: planned.target.map((d) => d.name).join("; "),
        layout: sheet.storage.layout,
        leftAlone: planned.leftAlone,
        free: planned.free,
      },
    };
  },
);

/** Days that the sheet calls for. */
export const dates = section(
  ofBuild,
  { dates: z.array(z.object({ date: z.string(), what: z.string() })).default([]) },
  (ground) => {
    const { handOver, network } = basisOf(ground).sheet;
    const due = (date: string | null, what: string) => (date ? [{ date, what }] : []);
    return {
      dates: [
        ...due(handOver.evaluationEnds, "evaluation ends"),
        ...due(network.fixedBy, "address becomes static"),
        ...network.services.flatMap((service) =>
          isOpenOutside(service)
            ? due(service.until, `${serviceWords(service)} is closed to the outside`)
            : [],
        ),
      ],
    };
  },
);

/** What the sheet tells whoever comes next. */
export const notes = section(ofBuild, { notes: z.string().default("") }, (ground) => ({
  notes: basisOf(ground).sheet.handOver.notes,
}));
