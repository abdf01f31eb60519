const PROGRAM = "/usr/local/sbin/derrick-first-boot";
export const UNIT = "derrick-first-boot.service";

/** A unit that runs the script of the first start when the network is there, and ends. */
const LINES = [
  ...["[Unit]", "Description=First start, as planned in Derrick", "Wants=network-online.target"],
  ...["After=network-online.target", "[Service]", "Type=oneshot", `ExecStart=${PROGRAM}`],
  ...["[Install]", "WantedBy=multi-user.target"],
];

/**
 * Commands at the end of an installation, none of which ends it when it fails, that put the script of the first start in its
 * place, and say that the system is there. A small wget dies of its own time limit (seen), so that another program keeps it. The script may hold
 * what was sealed: nobody but root reads it.
 */
export const firstBootCommands = (script: string, report: string): string[] => [
  `umask 077; f=${PROGRAM}; { curl -fsS -o $f ${script} || wget -q -O $f ${script}; } && chmod 700 $f || echo "not fetched: $f" >&2`,
  `printf '%s\\n' ${LINES.map((l) => `'${l}'`).join(" ")} > /etc/systemd/system/${UNIT} || true`,
  `systemctl enable ${UNIT} || true`,
  `curl -fsS -m 20 -d '' ${report}installed || timeout 20 wget -q -O /dev/null --post-data words= ${report}installed || true`,
];
