/** Begins a sheet. A form, not a link: a link could be followed ahead by the browser and begin one unasked. */
export function NewBuild({
  begin,
  text = "Create build sheet",
}: {
  begin: () => Promise<void>;
  text?: string;
}) {
  return (
    <form action={begin}>
      <button type="submit" className="btn">
        {text}
      </button>
    </form>
  );
}
