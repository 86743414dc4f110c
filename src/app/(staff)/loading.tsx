/** What stands in the work surface while a page is fetched. */
export default function Loading() {
  return <main className="work wide"><div className="surface"><div className="head"><p role="status" className="quiet">Fetching…</p></div></div></main>;
}
