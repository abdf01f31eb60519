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
  <Ruled
    title="Network boot over HTTPS"
    note="in addition to plain HTTP, for boot loaders that trust its certificate"
  >
    <p>
      An iPXE that was built with only this certificate (build option TRUST) and boots{" "}
      <span className="value">{url}/boot.ipxe</span> gets script, kernel and answer file without eavesdropping
      or change. A stock iPXE and GRUB refuse the certificate and keep using the plain address.
    </p>
    <p className="mt-1">
      This works only with a preseed file, which the installer finds inside its initramfs. The console of
      other machines tells you to use the plain address.
    </p>
    <dl className="mt-2 grid grid-cols-[minmax(0,auto)_1fr] gap-x-6">
      <dt>SHA-256 of the certificate</dt>
      <dd className="value [overflow-wrap:anywhere]">{fingerprint}</dd>
    </dl>
    <details className="mt-2">
      <summary className="link cursor-pointer">
        Certificate <span className="quiet">– PEM, not secret; its private key stays on this server</span>
      </summary>
      <CopyText text={certificate} />
      <pre className="value mt-1 overflow-x-auto border p-2 text-[0.86rem] border-base-300">
        {certificate}
      </pre>
    </details>
  </Ruled>
);
