import { expect, it } from "vitest";
import { firstImageFault, IMAGES } from "../support/fuzz-images";

it.each(IMAGES)(
  "ten thousand changed copies of %s are inspected or called unknown, within the file and the budget",
  (name) => expect(firstImageFault(name, 10_000, 14)).toBeNull(),
);
