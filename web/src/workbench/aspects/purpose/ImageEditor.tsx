import { useState } from "react";
import Button from "react-bootstrap/Button";

import type { Change } from "../../../api/types";
import { Fields } from "../../../ui/Fields";
import { InlineForm } from "../../../ui/InlineForm";
import { Meanwhile } from "../../../ui/Meanwhile";
import { useTyped } from "../../../ui/typed";
import { useBench } from "../../bench";
import { imageFrom, imageText, NAMES, ROWS, type ImageText } from "./image";

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
          <Meanwhile typed={typed} rows={ROWS} />
          <Fields refused={wrong} rows={ROWS} names={NAMES} text={text} setText={setText} />
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
