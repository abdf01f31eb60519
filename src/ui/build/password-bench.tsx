"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import {
  layouts,
  passphrase,
  sameOnAll,
  type PasswordRules,
  type PasswordsView,
  type SecretsView,
} from "@/core/identity";
import { asked, sending } from "../frame/ask";
import { Ruled } from "../frame/page";
import { Problems } from "../frame/problems";
import { KnownSecrets } from "./known-secrets";
import { PasswordInput, type Door } from "./password-input";
import { PasswordKeyboards, type BoardNames } from "./password-keyboards";
import { againstSealing, PasswordVerdict } from "./password-verdict";
import { useSecretsThread } from "./use-secrets-thread";

const CONTROLLER: Door = { opens: "the management controller", role: "controller" };
const ANY: PasswordRules = { leastLength: 1, classes: 1, edgesCount: true, mayHoldName: true };
const LEAST_BITS = 50;

/** A number below a bound, each as likely: what does not divide evenly is drawn again. */
function pick(bound: number): number {
  const most = Math.floor(2 ** 32 / bound) * bound;
  for (;;) {
    const [drawn = 0] = crypto.getRandomValues(new Uint32Array(1));
    if (drawn < most) return drawn % bound;
  }
}

const doorsOf = ({ accounts }: PasswordsView): Door[] => [
  ...accounts.filter((a) => a.logIn !== "none").map(({ name, role }) => ({ opens: name, role })),
  CONTROLLER,
  { opens: "a guest on this host", role: "guest" },
];

const FAILED =
  "The password could not be processed in this browser, and nothing was saved. Load the page again.";

/** A guest is called by its name, where somebody has typed one. */
const nameOf = ({ opens, role }: Door, guest: string): string =>
  role === "guest" && guest.trim() !== "" ? `guest ${guest.trim()}` : opens;

/** A password is judged, made and hashed here; what leaves the page is a hash, to be sealed. */
export function PasswordBench({ view }: { view: PasswordsView }) {
  const doors = doorsOf(view);
  const [door, setDoor] = useState<Door>(doors[0] ?? CONTROLLER);
  const [guest, setGuest] = useState("");
  const [password, setPassword] = useState("");
  const [shown, setShown] = useState(false);
  const [names, setNames] = useState<BoardNames>({ ...view.keyboards, system: view.keyboards.installer });
  const router = useRouter();
  const { secrets } = view;
  const [problems, setProblems] = useState<{ message: string }[]>([]);
  const [busy, setBusy] = useState(false);
  const { strength, weigh, weighed, thread } = useSecretsThread(view.words);
  const isAccount = door.role !== "controller" && door.role !== "guest";
  const judged = {
    ...{ password, role: door.role, strength, account: isAccount ? door.opens : "" },
    rules: isAccount ? view.rules : null,
  };
  const type = (text: string): void => {
    setPassword(text);
    setProblems([]);
    weigh(text);
  };
  const boards = {
    sends: layouts().get(names.sends),
    installer: layouts().get(names.installer),
    system: layouts().get(names.system),
  };
  const make = async (): Promise<void> => {
    const made = passphrase({
      ...{ words: await thread().words(), rules: judged.rules ?? ANY, account: judged.account },
      ...{ leastBits: LEAST_BITS, pick },
      allowed: sameOnAll(Object.values(boards).flatMap((board) => board ?? [])),
    });
    if (!made.ok) return setProblems(made.problems);
    type(made.value.text);
    setShown(true);
  };
  const send = async (body: unknown): Promise<boolean> => {
    const answer = await asked<SecretsView>(
      `/api/v1/builds/${view.id}/secrets`,
      "nothing was saved",
      sending(body),
    );
    // The page tells in several places what is sealed: it is asked anew for all of them.
    if (answer.ok) router.refresh();
    setProblems(answer.ok ? [] : answer.problems);
    return answer.ok;
  };
  const seal = async (): Promise<void> => {
    setBusy(true);
    try {
      // Who presses Enter at once has not waited for it.
      const found = strength ?? (password === "" ? null : await weighed(password));
      const against = againstSealing({ ...judged, strength: found });
      if (against.length > 0) return setProblems(against.map((message) => ({ message })));
      const hash = isAccount ? await thread().hash(password, null) : null;
      const toMark = await thread().hash(password, secrets.salt);
      if (await send({ opens: nameOf(door, guest), hash, toMark })) type("");
    } catch {
      setProblems([{ message: FAILED }]);
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      <div className="grid gap-x-10 lg:grid-cols-[24rem_1fr]">
        <div>
          <PasswordInput
            {...{ doors, door, guest, password, shown, busy, isAccount }}
            onDoor={setDoor}
            onGuest={setGuest}
            onType={type}
            onShow={setShown}
            onMake={() => void make()}
            onSeal={() => void seal()}
          />
          <Problems title="Not done" problems={problems} />
          <div className="mt-4">
            <PasswordKeyboards names={names} onChange={setNames} />
          </div>
        </div>
        <div>
          <PasswordVerdict judged={judged} boards={boards} shown={shown} />
        </div>
      </div>
      <div className="mt-6" />
      <Ruled
        title="Hash and fingerprint stored"
        note="A fingerprint shows whether the same password is used elsewhere; it does not reveal the password."
      >
        <KnownSecrets known={secrets.known} onForget={(opens) => void send({ forget: opens })} />
      </Ruled>
    </>
  );
}
