import Button from "react-bootstrap/Button";
import Modal from "react-bootstrap/Modal";

interface ActionProps {
  done: string;
  disabled: boolean;
  busy: boolean;
  onDone: () => void;
  onClose: () => void;
}

export function Actions({ done, disabled, busy, onDone, onClose }: ActionProps) {
  return (
    <Modal.Footer>
      <Button variant="" onClick={onClose}>
        Cancel
      </Button>
      <Button variant="primary" disabled={disabled || busy} onClick={onDone}>
        {busy ? "Importing…" : done}
      </Button>
    </Modal.Footer>
  );
}
