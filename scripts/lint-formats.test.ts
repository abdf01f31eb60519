import { RuleTester } from "eslint";
import { describe, it } from "vitest";
// @ts-expect-error a rule of the linter, which is read as plain JavaScript
import formats from "./lint-formats.mjs";

RuleTester.describe = describe;
RuleTester.it = it;

const code = (text: string, ...messageId: string[]) => ({
  code: text,
  errors: messageId.map((id) => ({ messageId: id })),
});

new RuleTester().run("dates and numbers have one form", formats, {
  valid: [
    "formatDate(at, site.timeZone)",
    "dayIn(at, 'UTC')",
    "text.slice(0, 10)",
    "machine.updatedAt.slice(11)",
    "flat.split('T')",
    "new Date(at).toISOString()",
    "seconds.toFixed(1)",
  ],
  invalid: [
    code("new Date(at).toISOString().slice(0, 10)", "cut"),
    code("machine.updatedAt.slice(0, 10)", "cut"),
    code("row.at.substring(0, 16)", "cut"),
    code("desk.now().split('T')[0]", "cut"),
    code("new Date(at).toLocaleString()", "form"),
    code("value.toLocaleString('en-GB')", "form"),
    code("new Intl.DateTimeFormat('en-GB')", "form"),
    code("new Intl.NumberFormat()", "form"),
    { ...code("(12345).toFixed(1)", "form"), options: ["numbers"] },
    code("new Date(at).getFullYear()", "part"),
    code("new Date(at).getUTCHours()", "part"),
  ],
});
