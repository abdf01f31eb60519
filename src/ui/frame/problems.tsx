interface Shown {
  message: string;
  line?: number;
  column?: number;
  excerpt?: string;
}

/** What went wrong, with its place and, for a text, the line itself. */
export function Problems({
  problems,
  title = "The action failed",
}: {
  problems: readonly Shown[];
  title?: string;
}) {
  if (problems.length === 0) return null;
  return (
    <div role="alert" className="alert alert-error my-3">
      <p className="font-semibold">{title}</p>
      <ul className="mt-1 space-y-1">
        {problems.map((p, i) => (
          <li key={i}>
            {p.line !== undefined && (
              <span className="value">
                line {p.line}
                {p.column !== undefined ? `, column ${p.column}` : ""}:{" "}
              </span>
            )}
            <span className="[overflow-wrap:anywhere]">{p.message}</span>
            {p.excerpt && <pre className="value mt-1 overflow-x-auto text-[0.86rem]">{p.excerpt}</pre>}
          </li>
        ))}
      </ul>
    </div>
  );
}
