import { Page } from "@/ui/frame/page";
import { ProfileImport } from "@/ui/image/profile-import";
import { keepProfile } from "../../actions";

export const metadata = { title: "Import a profile" };

export default function NewProfile() {
  return (
    <Page
      title="Import a profile"
      lead={
        <>
          How a family of operating system is installed, as YAML. Its shape is published as{" "}
          <a className="link-quiet" href="/api/v1/schemas/profile.json">
            JSON Schema
          </a>
          .
        </>
      }
    >
      <ProfileImport initial="" save={keepProfile} />
    </Page>
  );
}
