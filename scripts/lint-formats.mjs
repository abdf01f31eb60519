/**
 * Dates and numbers have one form, and core/units gives it: a rule that refuses what the language itself would print, and
 * a day that is cut out of a time in UTC, which around midnight is another day than that of the site.
 */
const OWN_FORMS = /^toLocale(Date|Time|)String$/;
const OWN_NUMBERS = /^toFixed$/;
const PARTS = /^(get|set)(UTC)?(FullYear|Month|Date|Day|Hours|Minutes)$/;
const CUTS = new Set(["slice", "substring", "substr"]);
const LENGTHS = new Set([10, 16, 19]);
/** Names of values that hold a time, as this code gives them. */
const TIME = /(^|\.)(at|\w+At|iso|now|time|when|since|until)(\([^()]*\))?$|toISOString\(\)$/;

const MESSAGES = {
  form: "Dates and numbers get their form from core/units: formatDate, formatDateTime, formatNumber, formatFixed.",
  part: "Parts of a date are those of the server's zone. Use dayIn or a formatter of core/units.",
  cut: "A day cut out of a time is the day in UTC. Use dayIn or localDay of core/units.",
};

const rule = {
  meta: { type: "problem", messages: MESSAGES, schema: [{ enum: ["numbers"] }] },
  create(context) {
    const numbers = context.options[0] === "numbers";
    return {
      NewExpression(node) {
        if (node.callee.type === "MemberExpression" && node.callee.object.name === "Intl")
          context.report({ node, messageId: "form" });
      },
      CallExpression(node) {
        const { callee } = node;
        if (callee.type !== "MemberExpression" || callee.property.type !== "Identifier") return;
        const { name } = callee.property;
        if (OWN_FORMS.test(name) || (numbers && OWN_NUMBERS.test(name)))
          context.report({ node, messageId: "form" });
        if (PARTS.test(name)) context.report({ node, messageId: "part" });
        const [first, last] = node.arguments;
        const cuts = CUTS.has(name) && first?.value === 0 && LENGTHS.has(last?.value);
        const splits = name === "split" && first?.value === "T";
        if ((cuts || splits) && TIME.test(context.sourceCode.getText(callee.object)))
          context.report({ node, messageId: "cut" });
      },
    };
  },
};

export default rule;
