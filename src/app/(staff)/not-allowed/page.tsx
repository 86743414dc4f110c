export default function NotAllowed() {
  return (
    <main className="work wide">
      <div className="empty">
        <h1>This is not among your powers.</h1>
        <p className="quiet">Your role does not include it. Ask an administrator.</p>
      </div>
    </main>
  );
}
