import type { Metadata } from "next";
import { nameOf } from "@/server/names";
import { desk } from "./desk";

type Props = { params: Promise<{ id: string }> };

/** The title of a page about one document: "B-0042 wrk-hv2 – Build sheet – Derrick". */
export const titled =
  (of: Parameters<typeof nameOf>[1], what: string) =>
  async ({ params }: Props): Promise<Metadata> => {
    const name = await nameOf(await desk(), of, (await params).id);
    return { title: name ? `${name} – ${what}` : what };
  };
