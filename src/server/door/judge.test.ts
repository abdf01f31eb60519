import { describe, expect, it } from "vitest";
import { judge, type Knock } from "./judge";

const OWN = "https://derrick.marrowby.example";
const HERE = "127.0.0.1:4360";
const judged = (knock: Partial<Knock>): number => {
  const verdict = judge({ method: "GET", path: "/", host: HERE, action: false, ...knock }, OWN);
  return verdict.admitted ? 200 : verdict.status;
};
const json = { method: "POST", path: "/api/v1/imports", contentType: "application/json; charset=utf-8" };

describe("under which name it is asked for", () => {
  const own = [
    HERE,
    "127.0.0.1",
    "127.0.0.1:9999",
    "localhost:4360",
    "[::1]:4360",
    "derrick.marrowby.example",
  ];
  it.each(own)("%s is Derrick itself", (host) => expect(judged({ host })).toBe(200));

  // A rebound name resolves to 127.0.0.1, but the browser still says the name.
  const others = [
    "rebound.example",
    "127.0.0.1.rebound.example:4360",
    "localhost.example",
    "127.0.0.1@rebound.example",
    "xlocalhost",
    "derrick.marrowby.example:8443",
    "10.61.10.5:4360",
    "",
  ];
  it.each(others)("%s is not", (host) => expect(judged({ host })).toBe(421));
  it("a request without a host is refused", () => expect(judged({ host: undefined })).toBe(421));
});

describe("from which page it comes", () => {
  const cases: [string, Partial<Knock>, number][] = [
    ["its own page changes something", { ...json, origin: `http://${HERE}`, site: "same-origin" }, 200],
    [
      "the same behind a proxy that keeps the name",
      { ...json, origin: OWN, host: "derrick.marrowby.example" },
      200,
    ],
    ["the same behind a proxy that does not", { ...json, origin: OWN, host: HERE }, 200],
    ["a program without a browser", json, 200],
    ["a foreign page", { ...json, origin: "https://elsewhere.example", site: "cross-site" }, 403],
    ["a foreign page on another port of this machine", { ...json, origin: "http://127.0.0.1:9" }, 403],
    ["a page of a file or a sandbox", { ...json, origin: "null" }, 403],
    ["a foreign page whose browser leaves out the origin", { ...json, site: "cross-site" }, 403],
    ["another name of the same site", { ...json, site: "same-site" }, 403],
    [
      "a foreign page's server action",
      { method: "POST", action: true, origin: "https://elsewhere.example" },
      403,
    ],
    [
      "its own server action",
      { method: "POST", action: true, origin: `http://${HERE}`, site: "same-origin" },
      200,
    ],
    ["a foreign page reads the export", { path: "/api/v1/export", origin: "https://elsewhere.example" }, 403],
    ["a picture on a foreign page", { site: "cross-site", mode: "no-cors", dest: "image" }, 403],
    ["a frame on a foreign page", { site: "cross-site", mode: "navigate", dest: "iframe" }, 403],
    ["a link from a mail or a ticket", { site: "cross-site", mode: "navigate", dest: "document" }, 200],
    ["an address that somebody types", { site: "none", mode: "navigate", dest: "document" }, 200],
    [
      "a foreign form that navigates",
      { method: "POST", site: "cross-site", mode: "navigate", dest: "document", contentType: "text/plain" },
      403,
    ],
  ];
  it.each(cases)("%s", (_, knock, status) => expect(judged(knock)).toBe(status));
});

describe("what it brings", () => {
  const picture = { method: "POST", path: "/api/v1/machines/m-1/pictures" };
  const exported = { method: "POST", path: "/api/v1/export" };
  const cases: [string, Partial<Knock>, number][] = [
    ["JSON as plain text, which a foreign form can send", { ...json, contentType: "text/plain" }, 415],
    ["JSON as a form", { ...json, contentType: "multipart/form-data; boundary=x" }, 415],
    ["JSON without a type", { ...json, contentType: undefined }, 415],
    ["a form to a page, which is no server action", { method: "POST", contentType: "text/plain" }, 405],
    ["a server action in parts", { method: "POST", action: true, contentType: "multipart/form-data" }, 415],
    ["a method that nothing takes", { ...json, method: "DELETE" }, 405],
    ["a picture", { ...picture, contentType: "image/jpeg" }, 200],
    ["a drawing that can hold scripts", { ...picture, contentType: "image/svg+xml" }, 415],
    ["a picture that is too large", { ...picture, contentType: "image/png", length: 6_000_001 }, 413],
    ["JSON that is too large", { ...json, length: 24_000_001 }, 413],
    ["an archive of any size", { ...exported, contentType: "application/gzip", length: 9e12 }, 200],
    ["an export of the older form", { ...exported, contentType: "application/json" }, 200],
    ["an export as plain text", { ...exported, contentType: "text/plain" }, 415],
  ];
  it.each(cases)("%s", (_, knock, status) => expect(judged(knock)).toBe(status));
});

describe("the door of machines", () => {
  const post = { method: "POST", path: "/api/collect/abcde-fghjk", contentType: "text/plain" };
  it("asks for the code alone: a machine may know Derrick by any name", () =>
    expect(judged({ ...post, host: "10.61.10.5:4360" })).toBe(200));
  it("is not for browsers", () => {
    expect(judged({ ...post, origin: "https://elsewhere.example" })).toBe(403);
    expect(judged({ ...post, site: "cross-site" })).toBe(403);
  });
  it("opens nothing beside it", () => {
    expect(judged({ ...post, path: "/api/collect/abcde/..%2f../v1/export", host: "10.61.10.5" })).toBe(421);
    expect(judged({ ...post, method: "GET", host: "10.61.10.5" })).toBe(421);
  });
  it("takes no more than a bundle can be", () => expect(judged({ ...post, length: 25e6 })).toBe(413));
});
