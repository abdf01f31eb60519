import Link from "next/link";

/** The machines of a site by name, each leading to its sheet. */
export const MachineLinks = ({ machines }: { machines: { id: string; name: string }[] }) =>
  machines.length === 0
    ? "none"
    : machines.map((m, i) => (
        <span key={m.id}>
          {i > 0 && ", "}
          <Link className="link" href={`/machines/${m.id}`}>
            {m.name}
          </Link>
        </span>
      ));
