export default function NotFound() {
  return (
    <main className="entry">
      <h1>There is nothing here.</h1>
      <p className="quiet">The address may have been cut off on its way. Open it again, whole.</p>
    </main>
  );
}
