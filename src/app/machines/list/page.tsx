import { Page } from "@/ui/frame/page";
import { ListReader } from "@/ui/machine/list-reader";
import { lookAtList, takeListOver } from "../actions";

export const metadata = { title: "Import a list of machines" };

export default function ReadList() {
  return (
    <Page title="Import a list of machines">
      <ListReader look={lookAtList} take={takeListOver} />
    </Page>
  );
}
