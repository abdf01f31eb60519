import { listProfiles } from "@/server/profiles";
import { Page } from "@/ui/frame/page";
import { NewImage } from "@/ui/image/image-form";
import { AddFile } from "@/ui/image/add-file";
import { addImage, keepDigest, keepFile } from "../actions";
import { desk } from "../../desk";

export const dynamic = "force-dynamic";
export const metadata = { title: "Add an image" };

export default async function NewImagePage() {
  const profiles = await listProfiles(await desk());
  const families = [...new Map(profiles.map((p) => [p.key, { key: p.key, name: p.profile.name }])).values()];
  return (
    <Page
      title="Add an image"
      lead="Drop the file to inspect it, or type what its vendor published. The file itself is not copied."
    >
      <AddFile keepFile={keepFile} keepDigest={keepDigest} />
      <NewImage families={families} others={[]} create={addImage} />
    </Page>
  );
}
