import Link from "next/link";
import { Page } from "@/ui/frame/page";

export const metadata = { title: "Page not found" };

export default function NotFound() {
  return (
    <Page title="Page not found" lead="Check the address. The item may have been deleted.">
      <Link className="btn" href="/">
        Go to Today
      </Link>
    </Page>
  );
}
