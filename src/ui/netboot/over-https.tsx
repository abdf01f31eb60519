import { CopyText } from "../frame/copy-text";
import { Ruled } from "../frame/page";

/** Where the boot service is reached over HTTPS, and what a loader has to know to believe it. */
export const OverHttps = ({
  url,
  fingerprint,
  certificate,
}: {
  url: string;
  fingerprint: string;
  certificate: string;
}) => (
  <Ruled title="Over HTTPS" note="beside the plain address, for boot loaders that know its certificate">
    <p>
      An iPXE that was built with this certificate alone (its build option TRUST) and is pointed at{" "}
      <span className="value">{url}/boot.ipxe</span> reads script, kernel and answers where nobody can listen
      or change them. A stock iPXE and GRUB refuse the certificate: they keep the plain address.
    </p>
    <p className="mt-1">
      Only an installer with a preseed file can be used so: it finds its answers inside its initial file
      system. Other machines are told at their console to use the plain address.
    </p>
    <dl className="mt-2 grid grid-cols-[minmax(0,auto)_1fr] gap-x-6">
      <dt>SHA-256 of the certificate</dt>
      <dd className="value [overflow-wrap:anywhere]">{fingerprint}</dd>
    </dl>
    <details className="mt-2">
      <summary className="link cursor-pointer">
        The certificate <span className="quiet">– PEM, no secret; its key stays on this server</span>
      </summary>
      <CopyText text={certificate} />
      <pre className="value mt-1 overflow-x-auto border p-2 text-[0.86rem] border-base-300">
        {certificate}
      </pre>
    </details>
  </Ruled>
);
