import Link from "next/link";
import { STAGES } from "@/core/netboot";
import { Ruled } from "../frame/page";
import { BootBoard } from "../netboot/boot-board";
import type { BoardLine } from "../netboot/board-line";

/** Machines that install themselves over the network now, or came to a bad end since yesterday. */
export function Installing({ lines }: { lines: readonly BoardLine[] }) {
  if (lines.length === 0) return null;
  const whole = (
    <Link className="link" href="/builds/netboot">
      All network installations
    </Link>
  );
  return (
    <Ruled title="Unattended installations" note={whole}>
      <BootBoard lines={lines} stages={STAGES} />
    </Ruled>
  );
}
