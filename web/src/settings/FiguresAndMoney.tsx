import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useId, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";

import { prefer, preferencesQuery } from "../api/preferences";
import type { Preferences } from "../api/types";
import { figure, money } from "../ui/numbers";
import { takeOver } from "../ui/preferences";
import { readNumber } from "../ui/readNumber";
import { withSign } from "../ui/displayUnits";
import { useFollowing } from "../ui/typed";
import { Failure, Loading } from "../ui/States";

const CHOICES: {
  name: "temperature" | "length" | "decimal";
  label: string;
  ways: [string, string][];
}[] = [
  {
    name: "temperature",
    label: "Temperatures",
    ways: [
      ["C", "°C"],
      ["F", "°F"],
    ],
  },
  {
    name: "length",
    label: "Lengths",
    ways: [
      ["mm", "millimetres"],
      ["in", "inches"],
    ],
  },
  {
    name: "decimal",
    label: "Decimal sign",
    ways: [
      ["point", "Point: 2.5"],
      ["comma", "Comma: 2,5"],
    ],
  },
];

/** In which units figures are shown and typed, and in what money plans begin. */
export function FiguresAndMoney() {
  const preferred = useQuery(preferencesQuery);
  return (
    <section aria-label="Units and currency">
      <h2>Units and currency</h2>
      {preferred.isPending && <Loading what="your settings" />}
      {preferred.isError && !preferred.data && (
        <Failure error={preferred.error} retry={() => void preferred.refetch()} />
      )}
      {preferred.data && <Choices preferred={preferred.data} />}
    </section>
  );
}

function Choices({ preferred }: { preferred: Preferences }) {
  const id = useId();
  const queries = useQueryClient();
  const change = useMutation({
    mutationFn: prefer,
    // One after the other, so that the last answer is the newest.
    scope: { id: "preferences" },
    onSuccess: (now) => {
      takeOver(now);
      queries.setQueryData(preferencesQuery.queryKey, now);
    },
  });
  return (
    <>
      <div className="settings-grid">
        {CHOICES.map(({ name, label, ways }) => (
          <Form.Group key={name} controlId={`${id}-${name}`}>
            <Form.Label>{label}</Form.Label>
            <Form.Select
              value={preferred[name]}
              onChange={(event) => change.mutate({ [name]: event.target.value })}
            >
              {ways.map(([way, text]) => (
                <option key={way} value={way}>
                  {text}
                </option>
              ))}
            </Form.Select>
          </Form.Group>
        ))}
      </div>
      <p className="soft">
        A warm room reads {figure(28, "°C")}, a case {figure(92.5, "mm")} and a load{" "}
        {figure(1.2, "A")}. You can type any value with its own unit, for example 75 °F or 1/2 in.
        Screws and standoffs keep their trade sizes. Workings stay in °C and mm.
      </p>
      <MoneyForm preferred={preferred} save={(next) => change.mutate(next)} />
      {change.error && (
        <p role="alert" className="tone-problem">
          {change.error.message}
        </p>
      )}
    </>
  );
}

interface MoneyProps {
  preferred: Preferences;
  save: (change: Partial<Preferences>) => void;
}

/** The money of new plans, and what a euro costs in it: what ships is priced in euros. */
function MoneyForm({ preferred, save }: MoneyProps) {
  const id = useId();
  const before = {
    currency: preferred.currency,
    euro: preferred.price_of_a_euro ? withSign(String(Number(preferred.price_of_a_euro))) : "",
  };
  const [text, setText] = useFollowing(before);
  const [wrong, setWrong] = useState("");
  const currency = text.currency.trim().toUpperCase();
  const foreign = currency !== "EUR";
  const changed = currency !== before.currency || (foreign && text.euro !== before.euro);
  const keep = () => {
    const euro = text.euro.trim() === "" ? null : readNumber(text.euro);
    if (!/^[A-Z]{3}$/.test(currency))
      setWrong("Enter a currency code of three letters, for example EUR.");
    else if (foreign && euro !== null && !(euro > 0))
      setWrong("Enter a number above 0, for example 1.08.");
    else {
      setWrong("");
      setText({ currency, euro: euro === null ? "" : withSign(String(euro)) });
      save({ currency, price_of_a_euro: foreign && euro !== null ? euro.toFixed(6) : null });
    }
  };
  return (
    <form
      className="settings-money"
      aria-label="Money"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <Form.Group controlId={`${id}-currency`}>
        <Form.Label>Currency of new plans</Form.Label>
        <Form.Control
          className="tabular"
          maxLength={3}
          value={text.currency}
          onChange={(event) => setText({ ...text, currency: event.target.value })}
        />
      </Form.Group>
      {foreign && (
        <Form.Group controlId={`${id}-euro`}>
          <Form.Label>Price of 1 EUR</Form.Label>
          <div className="with-unit">
            <Form.Control
              className="tabular"
              inputMode="decimal"
              placeholder="1.08"
              value={text.euro}
              onChange={(event) => setText({ ...text, euro: event.target.value })}
            />
            <span className="unit">{currency}</span>
          </div>
        </Form.Group>
      )}
      <Button type="submit" variant="" size="sm" disabled={!changed}>
        Save
      </Button>
      <span className="soft">
        {foreign
          ? `Shipped parts have prices in euros. Without a rate these prices are not known. Each plan keeps its own currency and rates, in its details.`
          : `An amount reads ${money(12.5, "EUR")}. Each plan keeps its own currency, in its details.`}
      </span>
      {wrong && (
        <p role="alert" className="tone-problem">
          {wrong}
        </p>
      )}
    </form>
  );
}
