import { ok, type Result } from "../../../result";
import { cleanText, plural, type Importer, type Reading } from "./importer";

const LINE = /^Bus \d{3} Device \d{3}: ID ([0-9a-f]{4}:[0-9a-f]{4}) ?(.*)$/;

/** `lsusb`: USB devices by id; hubs that belong to the ports themselves are passed over. */
export const lsusb: Importer = {
  tool: "lsusb",
  command: "lsusb",
  recognises: (text) => LINE.test(text.trimStart().split(/\r?\n/, 1)[0] ?? ""),
  parse(text): Result<Reading> {
    const all = text
      .split(/\r?\n/)
      .map((l) => LINE.exec(l))
      .filter((m) => m !== null);
    const usb = all
      .filter((m) => !/root hub/i.test(m[2] ?? ""))
      .map((m) => ({ ids: m[1] ?? "", name: cleanText(m[2]) ?? "(unnamed)" }));
    return ok({
      facts: { usb },
      understood: plural(usb.length, "USB device"),
      ignored: all.length > usb.length ? [plural(all.length - usb.length, "root hub")] : [],
    });
  },
};
