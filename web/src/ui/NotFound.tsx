import { Link } from "react-router";

export function NotFound() {
  return (
    <main className="quiet-state">
      <h1>This page does not exist</h1>
      <Link to="/">Open Plans</Link>
    </main>
  );
}
