import type { PasswordRole } from "@/core/identity";

/** What a password opens: an account of the sheet, or something beside it. */
export interface Door {
  opens: string;
  role: PasswordRole;
}

interface Props {
  doors: readonly Door[];
  door: Door;
  /** What a guest is called, where the password opens one. */
  guest: string;
  password: string;
  shown: boolean;
  busy: boolean;
  isAccount: boolean;
  onDoor: (door: Door) => void;
  onGuest: (name: string) => void;
  onType: (text: string) => void;
  onShow: (shown: boolean) => void;
  onMake: () => void;
  onSeal: () => void;
}

/** What the password opens, the password, and what can be done with it. */
export function PasswordInput(props: Props) {
  const { doors, door, guest, password, shown, busy, isAccount } = props;
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        props.onSeal();
      }}
    >
      <label className="block">
        <span className="label">Account</span>
        <select
          className="select"
          value={door.opens}
          onChange={(e) => props.onDoor(doors.find((d) => d.opens === e.target.value) ?? door)}
        >
          {doors.map(({ opens, role }) => (
            <option key={opens} value={opens}>
              {role === "controller" || role === "guest" ? opens : `${opens}, ${role}`}
            </option>
          ))}
        </select>
      </label>
      {door.role === "guest" && (
        <label className="mt-2 block">
          <span className="label">Which guest or account</span>
          <input
            className="input value"
            value={guest}
            maxLength={60}
            placeholder="mail1, root"
            onChange={(e) => props.onGuest(e.target.value)}
          />
        </label>
      )}
      <label className="mt-2 block">
        <span className="label">Password</span>
        <input
          className="input value"
          type={shown ? "text" : "password"}
          value={password}
          maxLength={256}
          autoComplete="new-password"
          spellCheck={false}
          onChange={(e) => props.onType(e.target.value)}
        />
      </label>
      <p className="mt-1 flex flex-wrap gap-x-4">
        <button type="button" className="link" onClick={() => props.onShow(!shown)}>
          {shown ? "Hide" : "Show"}
        </button>
        <button type="button" className="link" onClick={props.onMake}>
          Generate passphrase
        </button>
      </p>
      <p className="mt-3">
        <button type="submit" className="btn btn-primary" disabled={busy}>
          {busy ? "Working…" : isAccount ? "Store encrypted hash" : "Store fingerprint only"}
        </button>
      </p>
      <p className="quiet mt-1 text-[0.86rem]">
        {isAccount
          ? "The password stays in this page. Its hash is stored encrypted with the server key, used in the answer file, and destroyed when the run is handed over."
          : "The password stays in this page. Only a fingerprint is stored, which shows whether the password is reused."}
      </p>
    </form>
  );
}
