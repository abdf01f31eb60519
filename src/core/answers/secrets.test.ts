import { parse } from "yaml";
import { describe, expect, it } from "vitest";
import { aBuild, shippedProfile } from "../../../tests/support/builds";
import { A_HASH, A_KEY, anAccount as account } from "../../../tests/support/keys";
import { answerFileOf, lintKickstart, lintPreseed, textOf } from ".";

// Accounts with hashes that were sealed, and with keys: what each format makes of them.

const ACCOUNTS = [
  account("root", "super-user", "none"),
  account("jpell", "administrator", "password", [A_KEY]),
  account("arkle", "administrator", "key", [A_KEY]),
  account("guest1", "ordinary", "password"),
  account("probe", "service", "key", [A_KEY]),
];
const HASHES = new Map([
  ["jpell", A_HASH],
  ["guest1", A_HASH],
  ["probe", "no hash; reboot"],
]);

function fileOf(profile: string, accounts: unknown[] = ACCOUNTS, hashes = HASHES) {
  const plan = aBuild({ profile: shippedProfile(profile), sheet: { "answers.accounts": accounts } });
  const told = answerFileOf(plan, hashes);
  if (told.kind !== "file") throw new Error(JSON.stringify(told));
  return { text: textOf(told.file), byHand: told.file.byHand.map((g) => g.message).join("\n") };
}

describe("a kickstart file", () => {
  const { text, byHand } = fileOf("lowland-server-7");
  it("gives each account what its role needs, its hash and its keys", () => {
    expect(text.split("\n").filter((l) => /^(rootpw|user|sshkey)/.test(l))).toEqual([
      "rootpw --lock",
      `user --name=jpell --groups=wheel --password="${A_HASH}" --iscrypted`,
      `sshkey --username=jpell "${A_KEY}"`,
      "user --name=arkle --groups=wheel --lock",
      `sshkey --username=arkle "${A_KEY}"`,
      `user --name=guest1 --password="${A_HASH}" --iscrypted`,
      "user --name=probe --shell=/sbin/nologin --lock",
    ]);
    expect(lintKickstart(text)).toEqual([]);
  });

  it("tells who cannot elevate, and which key opens nothing", () => {
    expect(byHand).toMatch(/arkle uses key login and has no password/);
    expect(byHand).toMatch(/probe has no shell/);
    expect(byHand).not.toMatch(/jpell|guest1/);
  });
});

it("a hash changes nothing of what the sheet says about log-ins", () => {
  const hashes = new Map([
    ["root", A_HASH],
    ["arkle", A_HASH],
  ]);
  const { text, byHand } = fileOf("lowland-server-7", ACCOUNTS, hashes);
  expect(text).toMatch(/^rootpw --lock$/m);
  expect(byHand).toMatch(/and a password for elevation only/);
  // An installer that is told to refuse passwords needs no word about it.
  const byKey = [account("arkle", "administrator", "key", [A_KEY])];
  const told = fileOf("saddler-linux-24", byKey, hashes);
  expect(told.text).toContain("allow-pw: false");
  expect(told.byHand).not.toMatch(/arkle/);
});

it("a preseed file has the hash of the first account, and makes the others and all keys at its end", () => {
  const { text } = fileOf("millrace-12");
  expect(text).toContain(`d-i passwd/user-password-crypted password ${A_HASH}\n`);
  const late = text.split("\n").find((l) => l.includes("preseed/late_command")) ?? "";
  expect(late).toMatch(/^d-i preseed\/late_command string in-target sh -c '/);
  for (const part of ["useradd -m -s /bin/bash -G", "/home/jpell/.ssh/authorized_keys", "useradd -r -s"])
    expect(late).toContain(part);
  expect(lintPreseed(text)).toEqual([]);
  // Nothing at its end, where there is nothing to make.
  expect(fileOf("millrace-12", [account("jpell", "administrator", "password")]).text).not.toMatch(
    /late_command/,
  );
});

describe("the user data of an installer", () => {
  const treeOf = (hashes: typeof HASHES) =>
    (parse(fileOf("saddler-linux-24", ACCOUNTS, hashes).text) as { autoinstall: Record<string, unknown> })
      .autoinstall;

  it("asks for nothing once every password has its hash", () => {
    const tree = treeOf(HASHES);
    expect(tree).not.toHaveProperty("interactive-sections");
    expect(tree.ssh).toEqual({ "install-server": true, "allow-pw": true });
    expect(tree["user-data"]).toMatchObject({
      hostname: "wrk-hv1",
      fqdn: "wrk-hv1.marrowby.example",
      users: [
        { name: "root", lock_passwd: true },
        { name: "jpell", groups: ["sudo"], passwd: A_HASH, lock_passwd: false, ssh_authorized_keys: [A_KEY] },
        { name: "arkle", lock_passwd: true, ssh_authorized_keys: [A_KEY] },
        { name: "guest1", passwd: A_HASH },
        { name: "probe", system: true, shell: "/usr/sbin/nologin", lock_passwd: true },
      ],
    });
  });

  it("asks for the first whose password nobody has sealed, and makes the others", () => {
    const tree = treeOf(new Map([["guest1", A_HASH]]));
    expect(tree["interactive-sections"]).toEqual(["identity"]);
    const { users } = tree["user-data"] as { users: { name: string }[] };
    expect(users.map(({ name }) => name)).toEqual(["root", "arkle", "guest1", "probe"]);
  });
});

it("a key that cannot be read stops the file, and a key alone opens a machine", () => {
  const plan = (keys: string[]) =>
    aBuild({
      profile: shippedProfile("lowland-server-7"),
      sheet: { "answers.accounts": [account("jpell", "administrator", "key", keys)] },
    });
  expect(answerFileOf(plan([A_KEY])).kind).toBe("file");
  expect(answerFileOf(plan(["ssh-ed25519 AAAA"]))).toMatchObject({
    kind: "open",
    gaps: [{ path: "answers.accounts", message: expect.stringMatching(/the account "jpell"/) }],
  });
  expect(answerFileOf(plan([])).kind).toBe("open");
});
