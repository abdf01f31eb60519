import { expect, it } from "vitest";
import { armMachine } from "@/server/netboot/arm";
import { armingOffer } from "@/server/netboot/offer";
import { bootBoard } from "@/server/netboot/board";
import { walkMachine, type Client } from "../../simulators/netboot-client/machine";
import { makeReady } from "../support/armed";
import { ARMED, ask } from "../support/boot-image";
import { ownBootService } from "../support/boot-service";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";

// MAC and serial are no secret. Of those who claim both, the one that shows the code of the arming is given the installation.

ownDatabase();
const service = ownBootService();
const row = async () => (await bootBoard(await desk())).rows[0]!;
const claimant = (code?: string): Client => ({
  ...{ name: "tho-a", mac: ARMED.mac, serial: ARMED.serial, uuid: "", maker: "", model: "" },
  ...{ firmware: "bios", fault: null, code },
});
const walked = (code?: string) => walkMachine(claimant(code), { base: service.base, pace: 20_000 });

it("who claims MAC and serial and has no code, or another one, is given nothing; the board tells it", async () => {
  await makeReady();
  const offer = await armingOffer(await desk(), ARMED.build);
  expect(offer).toMatchObject({ ok: true, value: { secrets: [] } });
  const armed = await armMachine(await desk(), ARMED.build, {
    ...{ typed: ARMED.serial, minutes: 60, asksCode: true },
  });
  expect(armed).toMatchObject({ ok: true });
  const { arming } = await row();
  expect(arming.code).toMatch(/^[a-z]{12}$/);

  const nobody = await walked();
  expect(nobody).toMatchObject({ ended: "starts from its disk", installed: 0 });
  expect(nobody.said.join("\n")).toMatch(
    /Type the console code of this machine \(see Network installations in Derrick\)/,
  );
  expect((await row()).state).toMatchObject({ status: "waiting", wrongCode: null, givenTo: null });

  const told = { mac: ARMED.mac, serial: ARMED.serial };
  for (const code of ["bcdfghjknprs", `${arming.code}x`, arming.code.slice(1)]) {
    const query = new URLSearchParams({ ...told, code });
    const { body } = await ask(service.base, `/script?${query}`);
    expect(body.toString()).toMatch(/Wrong console code[^]*read code/);
    // What is asked for with the code tells nothing of it.
    expect(body.toString()).not.toContain(arming.code);
    const grub = (await ask(service.base, `/grub.cfg?${query}`)).body.toString();
    expect(grub).toMatch(
      /read code\nif regexp [^]*configfile "\(http,[^)]*\)\/grub.cfg\?mac=[^&]*&serial=[^&"]*&code=\$/,
    );
  }
  expect((await row()).state).toMatchObject({ status: "waiting", givenTo: null, wrongCode: { times: 6 } });

  // As a person types it, in groups; afterwards whoever has it gets nothing any more.
  expect(await walked(arming.code.toUpperCase().replace(/(....)(?=.)/g, "$1 "))).toMatchObject({
    installed: 1,
  });
  const late = await ask(service.base, `/script?${new URLSearchParams({ ...told, code: arming.code })}`);
  expect(late.body.toString()).toMatch(/^#!ipxe\n:local\n/);
});
