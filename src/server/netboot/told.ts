import type { Arming, BootFiles } from "@/core/netboot";
import { own } from "@/core/text";

type Told = Pick<Arming, "machine" | "image" | "build" | "initrd" | "words">;

/** What an armed machine starts, by its addresses; `at` ends with its token and a slash. */
export function filesAt(at: string, { initrd, words }: Told): BootFiles {
  const places = { "{answers.at}": `${at}answers/`, "{tree.at}": `${at}tree/`, "{image.at}": `${at}image` };
  return {
    kernel: `${at}kernel`,
    initrd: initrd.map((_, i) => `${at}initrd/${i + 1}`),
    words: words.map((w) => w.replace(/\{[a-z.]+\}/g, (name) => own(places, name) ?? name)),
  };
}

/** What its console says while it begins. */
export const titleOf = ({ machine, image, build }: Told): string =>
  `installing ${machine.name} with ${image.name}, sheet ${build.number} ${build.revision}`;

/** What a first start waits for is what it needs first: that Derrick can be told anything at all. */
export const readyWhen = (base: string): string[] => {
  const service = `${base}/boot.ipxe`;
  return [`curl -fsS -m 5 -o /dev/null ${service} || timeout 5 wget -q -O /dev/null ${service}`];
};
