import type { Metadata } from "next";
import { cookies } from "next/headers";
import type { ReactNode } from "react";
import { DemoLine } from "@/ui/frame/demo-line";
import { Frame } from "@/ui/frame/frame";
import { PersonProvider } from "@/ui/frame/person";
import { homeZone } from "@/server/sites";
import { desk } from "./desk";
import { begin } from "./builds/actions";
import { currentHand, setHand } from "./hand";
import { isLooking, leaveDemo } from "./look";
import { currentPerson } from "./person";
import "./globals.css";

export const metadata: Metadata = {
  title: { default: "Derrick", template: "%s – Derrick" },
  description: "From bare metal to handover",
};

export default async function Layout({ children }: { children: ReactNode }) {
  const theme = (await cookies()).get("derrick_theme")?.value;
  const known = theme === "day-sheet" || theme === "night-shift" ? theme : undefined;
  const person = await currentPerson(await homeZone(await desk()));
  return (
    <html lang="en" data-theme={known} suppressHydrationWarning>
      <body>
        <PersonProvider person={person}>
          <Frame
            hand={await currentHand()}
            units={person.units}
            setHand={setHand}
            begin={begin.bind(null, null)}
          >
            {(await isLooking()) && <DemoLine leave={leaveDemo} />}
            {children}
          </Frame>
        </PersonProvider>
      </body>
    </html>
  );
}
