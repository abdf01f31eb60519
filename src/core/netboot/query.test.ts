import { expect, it } from "vitest";
import { macIn, toldIn } from ".";

it("is heard as the firmware has it, in what a real iPXE sent", () => {
  const sent =
    "/script?mac=52-54-00-12-34-56&serial=A+B&C%23D/E%3FF=G&uuid=u-1&maker=Pip%20&%20Co%20%231+2&model=x%2541y%20%FFFFFFFFFFFFC3%FFFFFFFFFFFFA4&platform=pcbios&code=";
  expect(toldIn(sent)).toEqual({
    ...{ mac: "52-54-00-12-34-56", serial: "A+B&C#D/E?F=G", uuid: "u-1" },
    ...{ maker: "Pip & Co #1+2", model: "x%41y ä", code: "", platform: "pcbios" },
  });
});

it("is heard where a program has encoded all of it, a name stands twice, or what is escaped is no text", () => {
  const serial = "A+B&C#D 100%";
  expect(toldIn(`/script?mac=a&serial=${encodeURIComponent(serial)}`).serial).toBe(serial);
  expect(toldIn("/script?mac=a&serial=A&mac=b&platform=efi")).toMatchObject({ mac: "a", serial: "A&mac=b" });
  expect(toldIn("/script?serial=50%&maker=%ff%zz").serial).toBe("50%");
  expect(toldIn("/script?serial=50%&maker=%ff%zz").maker).toBe("\ufffd%zz");
  expect(Object.values(toldIn("/script")).join("")).toBe("");
});

it("what is no MAC is no machine", () => {
  expect([macIn("02-61-0A-00-00-14"), macIn("02:61:0a:00:00:14")]).toEqual(
    Array(2).fill("02:61:0a:00:00:14"),
  );
  for (const text of ["", "02:61:0a:00:00", "02:61:0a:00:00:14:15", "02:61:0a:00:00:zz", "x'--"])
    expect(macIn(text)).toBeNull();
});
