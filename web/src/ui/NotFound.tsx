import { Link } from "react-router";

export function NotFound() {
  return (
    <main className="quiet-state">
      <h1>There is no page here</h1>
      <Link to="/">Back to the plans</Link>
    </main>
  );
}
