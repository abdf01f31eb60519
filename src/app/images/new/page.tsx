import { listProfiles } from "@/server/profiles";
import { Page } from "@/ui/frame/page";
import { ImageForm } from "@/ui/image/image-form";
import { AddFile } from "@/ui/image/add-file";
import { keepDigest, keepFile, keepImage } from "../actions";
import { desk } from "../../desk";

export const dynamic = "force-dynamic";
export const metadata = { title: "Add an image" };

export default async function NewImage() {
  const profiles = await listProfiles(await desk());
  const families = [...new Map(profiles.map((p) => [p.key, { key: p.key, name: p.profile.name }])).values()];
  return (
    <Page
      title="Add an image"
      lead="By its file, or by what its maker published about it. The file itself stays where it is."
    >
      <AddFile keepFile={keepFile} keepDigest={keepDigest} />
      <ImageForm id={null} version={0} image={null} families={families} others={[]} save={keepImage} />
    </Page>
  );
}
