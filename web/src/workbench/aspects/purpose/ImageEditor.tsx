import { useId, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";

import type { Change } from "../../../api/types";
import { InlineForm } from "../../../ui/InlineForm";
import { Meanwhile } from "../../../ui/Meanwhile";
import { useTyped } from "../../../ui/typed";
import { useBench } from "../../bench";
import { imageFrom, imageText, type ImageText } from "./image";

const IMAGE_LABELS: Record<keyof ImageText, string> = {
  name: "Image",
  cardGb: "Size on the drive",
  memoryGb: "Memory needed",
  families: "Board families",
  bits: "Word size",
  desktop: "With a desktop",
};

/** Operating system image: the image on its card, which has to be made for the board and fit on it. */
export function ImageEditor() {
  const { view, changes } = useBench();
  const image = view.plan.image ?? null;
  const [open, setOpen] = useState(false);
  const typed = useTyped<ImageText>(imageText(image), view.version);
  const { text, setText } = typed;
  const [wrong, setWrong] = useState("");
  const save = () => {
    const found = imageFrom(text);
    if ("wrong" in found) {
      setWrong(found.wrong);
      return;
    }
    setWrong("");
    const patch: Change[] = [{ op: "set", fields: { image: found } }];
    changes.act({ kind: "patch", patch, label: `use ${found.name}` }, (stored) => {
      typed.settle(imageText(stored.plan.image ?? null), stored.version);
      setOpen(false);
    });
  };
  const leave = () => {
    setText(typed.base);
    setOpen(false);
  };
  return (
    <section className="purpose-part" aria-label="Operating system image">
      <h3>Operating system image</h3>
      {open ? (
        <InlineForm
          done="Save image"
          busy={changes.busy}
          wrong={wrong}
          onDone={save}
          onLeave={leave}
        >
          <Meanwhile typed={typed} labels={IMAGE_LABELS} />
          <ImageFields text={text} setText={setText} />
        </InlineForm>
      ) : (
        <p className="mb-0">
          {image ? (
            <>
              {image.name}, {image.card_gb} GB on the drive, {image.memory_gb} GB of memory
              {image.families.length > 0 && `, for ${image.families.join(", ")}`}
              {image.bits ? `, ${image.bits} bits` : ""}
              {image.desktop ? ", with a desktop" : ""}.
            </>
          ) : (
            <span className="soft">No image yet.</span>
          )}{" "}
          <Button
            variant="link"
            className="p-0"
            onClick={() => {
              setWrong("");
              setOpen(true);
            }}
          >
            {image ? "Change image" : "Add an image"}
          </Button>
        </p>
      )}
    </section>
  );
}

interface FieldProps {
  text: ImageText;
  setText: (text: ImageText) => void;
}

function ImageFields({ text, setText }: FieldProps) {
  const id = useId();
  const field = (name: "name" | "families" | "cardGb" | "memoryGb", label: string, unit = "") => (
    <Form.Group controlId={`${id}-${name}`}>
      <Form.Label>{label}</Form.Label>
      <div className="with-unit">
        <Form.Control
          size="sm"
          maxLength={120}
          value={text[name]}
          onChange={(event) => setText({ ...text, [name]: event.target.value })}
        />
        {unit && <span className="unit">{unit}</span>}
      </div>
    </Form.Group>
  );
  return (
    <>
      {field("name", "Image")}
      {field("cardGb", "Size on the drive", "GB")}
      {field("memoryGb", "Memory needed", "GB")}
      {field("families", "Board families")}
      <Form.Group controlId={`${id}-bits`}>
        <Form.Label>Word size</Form.Label>
        <Form.Select
          size="sm"
          value={text.bits}
          onChange={(event) => setText({ ...text, bits: event.target.value })}
        >
          <option value="">not known</option>
          <option value="32">32 bits</option>
          <option value="64">64 bits</option>
        </Form.Select>
      </Form.Group>
      <Form.Check
        id={`${id}-desktop`}
        label="With a desktop"
        checked={text.desktop}
        onChange={(event) => setText({ ...text, desktop: event.target.checked })}
      />
    </>
  );
}
