"use client";

import { term } from "@/core/text";
import { isOpenOutside, KNOWN_SERVICES, OUTSIDE, serviceWords, WAYS_IN, type Service } from "@/core/network";
import { Field, ParsedField, SelectField, TextField } from "../fields/fields";
import { wholeField } from "../fields/numbers";
import { Tick } from "../fields/ticks";
import type { PartProps } from "./zone-props";

const AT = "network.services" as const;
const LOG_INS = ["not told", "none", "password", "key"] as const;
const port = wholeField("1 to 65535", (n) => n > 0 && n <= 65_535);

const made = (known: Pick<Service, "name" | "port" | "protocol" | "manages">): Service => ({
  ...{ ...known, from: [], logIn: "not told", why: "", until: null, insteadOf: {}, hardened: null },
});

/** What the machine answers with, and who may reach it: a matrix of services and networks, and the doors from outside. */
export default function NetworkServices({ view, sheet, edit, marks }: PartProps) {
  const { services } = sheet.network;
  const segments = view.context.site?.segments ?? [];
  const put = (i: number, next: Service): void =>
    edit({ [AT]: services.map((s, j) => (j === i ? next : s)) });
  const columns = [...segments.map((s) => ({ id: s.id, name: s.name })), { id: OUTSIDE, name: "external" }];
  return (
    <Field path={AT} label="Services and access" marks={marks(AT)}>
      {services.length > 0 && (
        <table className="table mb-2" aria-label="Service access">
          <thead>
            <tr>
              <th>
                <span className="label">Service</span>
              </th>
              {columns.map((c) => (
                <th key={c.id}>
                  <span className="label">{c.name}</span>
                </th>
              ))}
              <th>
                <span className="sr-only">Remove</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {services.map((service, i) => (
              <tr key={i}>
                <th scope="row" className="text-left font-medium">
                  {serviceWords(service)}
                </th>
                {columns.map((c) => (
                  <td
                    key={c.id}
                    className={c.id === OUTSIDE && service.from.includes(OUTSIDE) ? "hatched" : ""}
                  >
                    <input
                      type="checkbox"
                      className="checkbox checkbox-xs"
                      aria-label={`${serviceWords(service)} from ${c.name}`}
                      checked={service.from.includes(c.id)}
                      onChange={(e) =>
                        put(i, {
                          ...service,
                          from: e.target.checked
                            ? [...service.from, c.id]
                            : service.from.filter((f) => f !== c.id),
                        })
                      }
                    />
                  </td>
                ))}
                <td>
                  <button
                    type="button"
                    className="link quiet"
                    onClick={() => edit({ [AT]: services.filter((_, j) => j !== i) })}
                  >
                    ×<span className="sr-only">remove {serviceWords(service)}</span>
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <AddService add={(service) => edit({ [AT]: [...services, service] })} />
      {services.map(
        (service, i) =>
          isOpenOutside(service) && <Door key={i} service={service} put={(next) => put(i, next)} />,
      )}
    </Field>
  );
}

function AddService({ add }: { add: (service: Service) => void }) {
  return (
    <SelectField
      path="service.new"
      label="Add service"
      value=""
      empty="choose…"
      options={[
        ...KNOWN_SERVICES.map((k, i) => ({ value: String(i), text: serviceWords(k) })),
        { value: "own", text: "other" },
      ]}
      onChange={(chosen) => {
        const known = KNOWN_SERVICES[Number(chosen)];
        if (known) add(made(known));
        else if (chosen === "own") add(made({ name: "", port: 8080, protocol: "tcp", manages: false }));
      }}
    />
  );
}

/** A door from outside: why, until when, what was tried first, and why no less exposed way will do. */
function Door({ service, put }: { service: Service; put: (next: Service) => void }) {
  return (
    <fieldset className="mt-3 border-l-2 pl-3 border-error">
      <legend className="font-medium">Reachable from outside: {serviceWords(service)}</legend>
      <div className="grid items-start gap-x-6 gap-y-2 sm:grid-cols-2 md:grid-cols-4">
        <TextField
          path="door.name"
          label="Service"
          value={service.name}
          maxLength={60}
          onChange={(name) => put({ ...service, name })}
        />
        <ParsedField
          path="door.port"
          label="Port"
          value={service.port}
          format={port.format}
          parse={(text) => {
            const read = port.parse(text);
            return "value" in read
              ? read.value === null
                ? { problem: "1 to 65535" }
                : { value: read.value }
              : read;
          }}
          onChange={(next) => put({ ...service, port: next })}
        />
        <SelectField
          path="door.log-in"
          label="Login method"
          value={service.logIn}
          options={LOG_INS.map((l) => ({ value: l, text: term(l) }))}
          onChange={(logIn) => put({ ...service, logIn: logIn as Service["logIn"] })}
        />
        <div className="self-end pb-1">
          <Tick
            label="management access"
            value={service.manages}
            onChange={(manages) => put({ ...service, manages })}
          />
        </div>
        <TextField
          path="door.why"
          label="Reason"
          span
          value={service.why}
          maxLength={200}
          onChange={(why) => put({ ...service, why })}
        />
        <TextField
          path="door.until"
          label="End date"
          type="date"
          value={service.until ?? ""}
          onChange={(until) => put({ ...service, until: until || null })}
        />
        <TextField
          path="door.hardened-on"
          label="Tested before opening, on"
          type="date"
          value={service.hardened?.on ?? ""}
          onChange={(on) =>
            put({ ...service, hardened: on ? { on, how: service.hardened?.how ?? "" } : null })
          }
        />
        <div className="sm:col-span-2">
          <TextField
            path="door.hardened-how"
            label="Test and result"
            value={service.hardened?.how ?? ""}
            maxLength={200}
            onChange={(how) =>
              service.hardened && put({ ...service, hardened: { ...service.hardened, how } })
            }
          />
        </div>
      </div>
      <p className="label mt-2">Why less exposed options are not sufficient</p>
      <div className="grid gap-x-6 gap-y-1 md:grid-cols-2">
        {WAYS_IN.map((way) => (
          <TextField
            key={way}
            path={`door.${way}`}
            label={way}
            value={service.insteadOf[way] ?? ""}
            maxLength={200}
            onChange={(why) => put({ ...service, insteadOf: { ...service.insteadOf, [way]: why } })}
          />
        ))}
      </div>
    </fieldset>
  );
}
