import { profileView } from "@/server/profiles";
import { Page } from "@/ui/frame/page";
import { ProfileImport } from "@/ui/profile/profile-import";
import { keepProfile } from "../../actions";
import { desk } from "../../../desk";

export const dynamic = "force-dynamic";
export const metadata = { title: "Import a profile" };

export default async function NewProfile({
  searchParams,
}: {
  searchParams: Promise<{ from?: string; version?: string }>;
}) {
  const { from, version } = await searchParams;
  const copied = from && version ? await profileView(await desk(), from, version) : null;
  return (
    <Page
      title={copied ? `Copy of ${copied.profile.name} ${copied.version}` : "Import a profile"}
      lead={
        <>
          {copied
            ? "Change its version and anything else that differs, then save. With the same version, it becomes the next revision.\n"
            : "How an OS family is installed, as YAML.\n"}
          The format is published as{" "}
          <a className="link" href="/api/v1/schemas/profile.json">
            JSON Schema
          </a>
          .
        </>
      }
    >
      <ProfileImport initial={copied?.yaml ?? ""} save={keepProfile} />
    </Page>
  );
}
