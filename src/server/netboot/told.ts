import { packedWords, trusting, type Arming, type BootFiles } from "@/core/netboot";
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

/**
 * The same over HTTPS: the answers are packed into a further initial file system, since the boot loader knows whom to believe and
 * no installer does. Null for an installer that cannot take them so.
 */
export function packedAt(at: string, told: Told): BootFiles | null {
  const words = packedWords(told.words);
  if (!words) return null;
  const { initrd, ...files } = filesAt(at, { ...told, words });
  return { ...files, initrd: [...initrd, `${at}packed`] };
}

/** What its console says while it begins. */
export const titleOf = ({ machine, image, build }: Told): string =>
  `installing ${machine.name} with ${image.name}, sheet ${build.number} ${build.revision}`;

/** What a first start waits for is what it needs first: that Derrick can be told anything at all. */
export const readyWhen = (base: string, pin = ""): string[] => {
  const service = `${base}/boot.ipxe`;
  const { curl, wget } = trusting(pin);
  return [
    `curl -fsS${curl} -m 5 -o /dev/null ${service} || timeout 5 wget -q${wget} -O /dev/null ${service}`,
  ];
};
