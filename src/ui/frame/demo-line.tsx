/** Says on every page that what is shown is made up, and leads back. */
export const DemoLine = ({ leave }: { leave: () => Promise<void> }) => (
  <form
    action={leave}
    className="no-print sticky top-0 z-20 flex flex-wrap items-center gap-x-4 gap-y-1 border-b-2 bg-base-200 px-4 py-1.5 border-warning"
  >
    <span>
      <b>Demo: an invented water utility.</b> Nothing can be changed here, and nothing is stored.
    </span>
    <button type="submit" className="btn">
      Back to your own data
    </button>
  </form>
);
