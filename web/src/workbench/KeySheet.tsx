import { useId } from "react";
import Modal from "react-bootstrap/Modal";

import Form from "react-bootstrap/Form";

import type { KeyAction } from "./keys";
import { useLetterKeys } from "../ui/keySetting";

/** Every key of the workbench, from the table that also makes them work. */
export function KeySheet({ actions, onClose }: { actions: KeyAction[]; onClose: () => void }) {
  const id = useId();
  const [on, setOn] = useLetterKeys();
  return (
    <Modal show onHide={onClose} aria-labelledby={id}>
      <Modal.Header closeButton>
        <Modal.Title id={id} as="h2" className="fs-5">
          Keys
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <table className="as-table">
          <tbody>
            {actions.map((action) => (
              <tr key={action.shown}>
                <th scope="row" className="text-nowrap">
                  <kbd>{action.shown}</kbd>
                </th>
                <td>{action.what}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <Form.Check
          id={`${id}-on`}
          className="mt-2"
          label="Use single letters, digits and signs as keyboard shortcuts"
          checked={on}
          onChange={(event) => setOn(event.target.checked)}
        />
        <p className="soft mt-1 mb-0">
          Shortcuts are off while you type in a field. Ctrl+Z, Enter and Esc always work.
        </p>
      </Modal.Body>
    </Modal>
  );
}
