import { codeWords } from "@/core/netboot";
import { formatClock } from "@/core/units";
import type { BoardLine } from "./board-line";

/** Two that claim to be this machine, or this machine twice: what it was given once is not given again. */
export const isClaimedTwice = ({ state }: Pick<BoardLine, "state">): boolean =>
  state.second !== null && state.givenTo !== null && ["fetching", "installing"].includes(state.status);

/** What has to be known of an arming beside its row, which has no room for it in a narrow window. */
export function BoardNotes({ line, columns }: { line: BoardLine; columns: number }) {
  const { state, arming } = line;
  const { name } = arming.machine;
  const told = (one: { at: string; address: string } | null): string =>
    one ? `${formatClock(one.at, arming.timeZone)}, ${one.address || "address unknown"}` : "–";
  const isOpen = state.status === "waiting";
  return (
    <>
      {isClaimedTwice(line) && (
        <tr>
          <td colSpan={columns} className="text-error">
            Second request for {name}: {told(state.second)}. The installation was already given to:{" "}
            {told(state.givenTo)}. Cancel it, find out who sent the request, and arm the machine again.
          </td>
        </tr>
      )}
      {isOpen && line.code !== "" && (
        <tr>
          <td colSpan={columns}>
            Console code of {name}: <span className="value font-semibold">{codeWords(line.code)}</span>
            {line.medium !== "" && (
              <details>
                <summary className="link cursor-pointer">
                  Boot medium script with the code (autoexec.ipxe)
                </summary>
                <pre className="value mt-1 overflow-x-auto border p-2 text-[0.86rem] border-base-300">
                  {line.medium}
                </pre>
                <p className="quiet">
                  Anyone with this medium has the code: erase it once {name} is installed.
                </p>
              </details>
            )}
          </td>
        </tr>
      )}
      {state.wrongCode && (
        <tr>
          <td colSpan={columns} className="text-error">
            Wrong code for {name}, {state.wrongCode.times === 1 ? "once" : `${state.wrongCode.times} times`},
            last {told(state.wrongCode)}. If it was not a typing error at the console, find out who sends the
            requests.
          </td>
        </tr>
      )}
    </>
  );
}
