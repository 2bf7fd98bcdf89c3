import { useId } from "react";
import Modal from "react-bootstrap/Modal";

import type { KeyAction } from "./keys";

/** Every key of the workbench, from the table that also makes them work. */
export function KeySheet({ actions, onClose }: { actions: KeyAction[]; onClose: () => void }) {
  const id = useId();
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
                <th scope="row">
                  <kbd>{action.shown}</kbd>
                </th>
                <td>{action.what}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className="soft mt-2 mb-0">Keys rest while you type in a field.</p>
      </Modal.Body>
    </Modal>
  );
}
