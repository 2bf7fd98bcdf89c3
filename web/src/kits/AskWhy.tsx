import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import Form from "react-bootstrap/Form";

import { partsQuery, whyNotQuery } from "../api/queries";
import type { KitSearch } from "../api/types";
import { kindWord } from "../ui/kinds";
import { textOf } from "../ui/text";
import { askable } from "./kits";

/** Why a part is in none of the kits: chosen, and answered in a sentence. */
export function AskWhy({ planId, search }: { planId: string; search: KitSearch }) {
  const id = useId();
  const [part, setPart] = useState("");
  const parts = useQuery(partsQuery).data ?? [];
  const told = useQuery(whyNotQuery(planId, part, search));
  return (
    <section className="kits-ask" aria-label="Ask about a part">
      <label htmlFor={`${id}-part`}>Why is this part in no kit?</label>
      <Form.Select
        id={`${id}-part`}
        size="sm"
        value={part}
        onChange={(event) => setPart(event.target.value)}
      >
        <option value="">Choose a part</option>
        {askable(parts).map(([kind, some]) => (
          <optgroup key={kind} label={kindWord(kind)}>
            {some.map((one) => (
              <option key={one.id} value={one.id}>
                {one.model}
              </option>
            ))}
          </optgroup>
        ))}
      </Form.Select>
      <p role="status" className={told.isError ? "tone-problem" : ""}>
        {told.isFetching
          ? "Trying kits with it…"
          : told.isError
            ? told.error.message
            : told.data && textOf(told.data.text)}
      </p>
    </section>
  );
}
