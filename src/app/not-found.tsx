import Link from "next/link";
import { Page } from "@/ui/frame/page";

export default function NotFound() {
  return (
    <Page
      title="This sheet is not in the chest"
      lead="The address may be mistyped, or what it named is no longer there."
    >
      <Link className="btn" href="/">
        Today
      </Link>
    </Page>
  );
}
