import { useMutation } from "@tanstack/react-query";
import { useId, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import Modal from "react-bootstrap/Modal";

import { client, dataOf } from "../api/client";

interface Props {
  onClose: () => void;
  onCreated: (id: string) => void;
}

export function NewPlanDialog({ onClose, onCreated }: Props) {
  const [name, setName] = useState("");
  const id = useId();
  const create = useMutation({
    mutationFn: async () => dataOf(await client.POST("/api/plans", { body: { name, plan: null } })),
    onSuccess: (plan) => onCreated(plan.id),
  });
  return (
    <Modal show onHide={onClose} aria-labelledby={`${id}-title`}>
      <Form
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) create.mutate();
        }}
      >
        <Modal.Header closeButton>
          <Modal.Title id={`${id}-title`} as="h2" className="fs-5">
            New plan
          </Modal.Title>
        </Modal.Header>
        <Modal.Body>
          <Form.Label htmlFor={`${id}-name`}>What will it be?</Form.Label>
          <Form.Control
            id={`${id}-name`}
            value={name}
            maxLength={120}
            autoFocus
            autoComplete="off"
            placeholder="Orchard frost camera"
            onChange={(event) => setName(event.target.value)}
          />
          <Form.Text>A working name; you can change it later.</Form.Text>
          {create.error && (
            <p role="alert" className="tone-stops">
              {create.error.message}
            </p>
          )}
        </Modal.Body>
        <Modal.Footer>
          <Button variant="" onClick={onClose}>
            Not now
          </Button>
          <Button variant="primary" type="submit" disabled={!name.trim() || create.isPending}>
            Begin
          </Button>
        </Modal.Footer>
      </Form>
    </Modal>
  );
}
