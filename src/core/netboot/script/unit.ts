import { trusting } from "./trust";

const PROGRAM = "/usr/local/sbin/derrick-first-boot";
export const UNIT = "derrick-first-boot.service";

/** A unit that runs the script of the first start when the network is there, and ends. */
const LINES = [
  ...["[Unit]", "Description=First-boot commands from Derrick", "Wants=network-online.target"],
  ...["After=network-online.target", "[Service]", "Type=oneshot", `ExecStart=${PROGRAM}`],
  ...["[Install]", "WantedBy=multi-user.target"],
];

/**
 * Commands at the end of an installation, none of which ends it when it fails, that put the script of the first start in its
 * place, and say that the system is there. A small wget dies of its own time limit (seen), so that another program keeps it. The script may hold
 * what was sealed: nobody but root reads it.
 */
export function firstBootCommands(script: string, report: string, pin = ""): string[] {
  // A command of a sheet has its longest: what stands in it twice is put under a name.
  const { curl, wget } = trusting(pin && "$p");
  const names = (url: string): string => `${pin && `p=${pin}; `}u=${url}; `;
  return [
    `umask 077; f=${PROGRAM}; ${names(script)}{ curl -fsS${curl} -o $f $u || wget -q${wget} -O $f $u; } && chmod 700 $f || echo "not fetched: $f" >&2`,
    `printf '%s\\n' ${LINES.map((l) => `'${l}'`).join(" ")} > /etc/systemd/system/${UNIT} || true`,
    `systemctl enable ${UNIT} || true`,
    `${names(`${report}installed`)}curl -fsS${curl} -m 20 -d '' $u || timeout 20 wget -q${wget} -O /dev/null --post-data words= $u || true`,
  ];
}
