import { expect, it } from "vitest";
import { isWeak, matchChecksum, parseChecksumList } from ".";

const A = "a".repeat(64);
const B = "b".repeat(128);
const entriesOf = (text: string) => {
  const read = parseChecksumList(text);
  return read.ok ? read.value.entries : [];
};

it("reads the usual forms, and passes over what is around them", () => {
  const text = `-----BEGIN PGP SIGNED MESSAGE-----\nHash: SHA256\n\n${A}  ./isos/lowland-7.iso\n${A.toUpperCase()} *other.iso\nSHA512 (lowland-7.iso) = ${B}\nMD5(old.iso)= ${"c".repeat(32)}\n${"d".repeat(40)}\nnot a line\n`;
  expect(parseChecksumList(text)).toMatchObject({ ok: true, value: { signed: true } });
  expect(entriesOf(text).map((e) => [e.checksum.algorithm, e.name, e.line])).toEqual([
    ["sha256", "lowland-7.iso", 4],
    ["sha256", "other.iso", 5],
    ["sha512", "lowland-7.iso", 6],
    ["md5", "old.iso", 7],
    ["sha1", null, 8],
  ]);
});

it("refuses what holds none, with the reason", () => {
  expect(parseChecksumList("<html>")).toMatchObject({
    ok: false,
    problems: [{ message: expect.stringContaining("no line has a checksum") }],
  });
});

it("matches by name with the strongest digest, by value when the file was renamed, or alone", () => {
  const list = entriesOf(`${A}  x.iso\nSHA512 (x.iso) = ${B}\n`);
  expect(matchChecksum(list, "/home/me/x.iso", null)).toMatchObject({
    by: "name",
    entry: { checksum: { algorithm: "sha512" } },
  });
  expect(matchChecksum(list, "renamed.iso", { algorithm: "sha256", value: A.toUpperCase() })).toMatchObject({
    by: "value",
  });
  expect(matchChecksum(list, "renamed.iso", null)).toBeNull();
  expect(matchChecksum(entriesOf(A), "any.iso", null)).toMatchObject({ by: "alone" });
  expect([isWeak("md5"), isWeak("sha1"), isWeak("sha256")]).toEqual([true, true, false]);
});

it("takes no last line that may be cut off, and no digest of another length than its kind has", () => {
  const cut = parseChecksumList(`${A}  other.iso\n${A}  server-7.4.is`);
  expect(cut).toMatchObject({ ok: true, value: { entries: [{ name: "other.iso" }], openLine: 2 } });
  expect(parseChecksumList(`${A}  other.iso\n${A}  server-7.4.iso\n`)).toMatchObject({
    value: { openLine: null },
  });
  expect(parseChecksumList(`SHA512 (x.iso) = ${A}`)).toMatchObject({ ok: false });
});
