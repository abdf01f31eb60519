import type { Sheet } from "@/core/sheet";
import { Field } from "../fields/fields";
import type { ZoneProps } from "./zone-props";

type Account = Sheet["answers"]["accounts"][number];
const ROLES: Account["role"][] = ["super-user", "administrator", "ordinary", "service"];
const LOG_INS: Account["logIn"][] = ["password", "key", "none"];

/** What an account of each role may, and why no more. */
const ROLE_WORDS: Readonly<Record<Account["role"], string>> = {
  "super-user":
    "Full rights; actions cannot be traced to a person. Disable its login if an administrator account exists.",
  administrator:
    "Gets root rights when needed under its own name, so every action can be traced to a person.",
  ordinary: "Can change only its own files.",
  service: "For one program, without a shell: a takeover of the program gives no login.",
};

interface Props {
  accounts: Account[];
  marks: ReturnType<ZoneProps["marks"]>;
  onChange: (accounts: Account[]) => void;
  suggested: string;
}

/** The accounts of a sheet, by name, role and log-in, with the public keys that open them. */
export default function Accounts({ accounts, marks, onChange, suggested }: Props) {
  const change = (i: number, part: Partial<Account>) =>
    onChange(accounts.map((a, j) => (j === i ? { ...a, ...part } : a)));
  const next: Account = accounts.some((a) => a.role === "super-user")
    ? { name: "", role: "administrator", logIn: "key", keys: [] }
    : { name: suggested, role: "super-user", logIn: "password", keys: [] };
  return (
    <Field path="answers.accounts" label="Accounts, by name only" marks={marks}>
      <ul>
        {accounts.map((account, i) => (
          <li key={i} className="border-b py-1.5 border-base-300">
            <AccountRow
              account={account}
              number={i + 1}
              onChange={(part) => change(i, part)}
              onRemove={() => onChange(accounts.filter((_, j) => j !== i))}
            />
            <AccountKeys account={account} onChange={(keys) => change(i, { keys })} />
          </li>
        ))}
      </ul>
      <button type="button" className="link mt-1" onClick={() => onChange([...accounts, next])}>
        Add {next.role === "super-user" ? "root" : "account"}
      </button>
    </Field>
  );
}

function AccountRow({
  account,
  number,
  onChange,
  onRemove,
}: {
  account: Account;
  number: number;
  onChange: (part: Partial<Account>) => void;
  onRemove: () => void;
}) {
  const { name, role, logIn } = account;
  const called = name || `account ${number}`;
  return (
    <div className="grid items-baseline gap-x-4 sm:grid-cols-[11rem_10rem_9rem_1fr_4rem]">
      <input
        aria-label={`Name of account ${number}`}
        className="input"
        value={name}
        maxLength={40}
        autoComplete="off"
        onChange={(e) => onChange({ name: e.target.value })}
      />
      <select
        aria-label={`Role of ${called}`}
        className="select"
        value={role}
        onChange={(e) => onChange({ role: e.target.value as Account["role"] })}
      >
        {ROLES.map((r) => (
          <option key={r}>{r}</option>
        ))}
      </select>
      <select
        aria-label={`Login of ${called}`}
        className="select"
        value={logIn}
        onChange={(e) => onChange({ logIn: e.target.value as Account["logIn"] })}
      >
        {LOG_INS.map((l) => (
          <option key={l} value={l}>
            {l === "none" ? "no login" : `by ${l}`}
          </option>
        ))}
      </select>
      <span className="quiet text-[0.86rem]">{ROLE_WORDS[role]}</span>
      <button type="button" className="link quiet" onClick={onRemove}>
        Remove<span className="sr-only"> {called}</span>
      </button>
    </div>
  );
}

/** Public keys, each with the day after which it is to go. */
function AccountKeys({ account, onChange }: { account: Account; onChange: (keys: Account["keys"]) => void }) {
  const { name, role, logIn, keys } = account;
  if (role === "service" || (logIn === "none" && keys.length === 0)) return null;
  const put = (i: number, part: Partial<Account["keys"][number]>) =>
    onChange(keys.map((k, j) => (j === i ? { ...k, ...part } : k)));
  return (
    <div className="mt-1 pl-4">
      {keys.map((key, i) => (
        <div key={i} className="grid items-baseline gap-x-4 sm:grid-cols-[1fr_13rem_4rem]">
          <input
            aria-label={`Public key ${i + 1} of ${name}`}
            className="input value text-[0.86rem]"
            value={key.line}
            placeholder="ssh-ed25519 AAAA… name@place"
            maxLength={8000}
            autoComplete="off"
            spellCheck={false}
            onChange={(e) => put(i, { line: e.target.value.trimStart() })}
          />
          <label className="flex items-baseline gap-2">
            <span className="label whitespace-nowrap">until</span>
            <input
              aria-label={`Last day of key ${i + 1} of ${name}`}
              type="date"
              className="input"
              value={key.until}
              onChange={(e) => put(i, { until: e.target.value })}
            />
          </label>
          <button
            type="button"
            className="link quiet"
            onClick={() => onChange(keys.filter((_, j) => j !== i))}
          >
            Remove
            <span className="sr-only">
              {" "}
              key {i + 1} of {name}
            </span>
          </button>
        </div>
      ))}
      <button
        type="button"
        className="link text-[0.86rem]"
        onClick={() => onChange([...keys, { line: "", until: "" }])}
      >
        Add public key<span className="sr-only"> of {name}</span>
      </button>
    </div>
  );
}
