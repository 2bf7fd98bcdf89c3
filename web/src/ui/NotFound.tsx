import Button from "react-bootstrap/Button";
import { Link } from "react-router";

export function NotFound() {
  return (
    <main className="quiet-state">
      <h1>This page does not exist</h1>
      <Link to="/">Open Plans</Link>
    </main>
  );
}

/** The script of a page did not come: the server is away, or was replaced by a newer one. */
export function NoPage() {
  return (
    <main className="quiet-state" role="alert">
      <h1>This page could not be loaded</h1>
      <p>Check that the server is running, then reload. Your plans are unchanged.</p>
      <Button variant="" onClick={() => window.location.reload()}>
        Reload
      </Button>
    </main>
  );
}
