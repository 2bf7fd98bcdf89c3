import { useEffect } from "react";
import Button from "react-bootstrap/Button";
import Modal from "react-bootstrap/Modal";
import { useBlocker } from "react-router";

/** Asks before typed text is left behind, by a link, by the back button or by closing the tab. */
export function LeaveGuard({ dirty, what }: { dirty: boolean; what: string }) {
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) =>
      dirty && currentLocation.pathname !== nextLocation.pathname,
  );
  useEffect(() => {
    if (!dirty) return;
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener("beforeunload", ask);
    return () => window.removeEventListener("beforeunload", ask);
  }, [dirty]);
  if (blocker.state !== "blocked") return null;
  return (
    <Modal show onHide={() => blocker.reset()} aria-labelledby="leave-title">
      <Modal.Header closeButton>
        <Modal.Title id="leave-title" as="h2" className="fs-5">
          Discard your changes?
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>Your changes to {what} are not saved.</Modal.Body>
      <Modal.Footer>
        <Button variant="" onClick={() => blocker.proceed()}>
          Discard
        </Button>
        <Button variant="primary" autoFocus onClick={() => blocker.reset()}>
          Keep editing
        </Button>
      </Modal.Footer>
    </Modal>
  );
}
