import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";

import { partsQuery, searchQuery } from "../api/queries";
import type { PartView } from "../api/types";
import { money } from "../ui/numbers";
import { PageBar } from "../ui/PageBar";
import { Failure, Loading } from "../ui/States";
import { KINDS } from "../ui/kinds";
import { BrokenParts } from "./BrokenParts";
import { PartPane } from "./PartPane";
import { usePartChanges } from "./usePartChanges";
import { textOf } from "../ui/text";
import { useTitle } from "../ui/useTitle";

/** Every part there is, and the sheet of the chosen one beside the list. */
export function PartsPage() {
  const { partId } = useParams();
  const [params] = useSearchParams();
  const [search, setSearch] = useState("");
  const [kind, setKind] = useState(params.get("kind") ?? "");
  const [away, setAway] = useState<{ id: string; name: string } | null>(null);
  const navigate = useNavigate();
  const parts = useQuery(partsQuery);
  useTitle(parts.data?.find((part) => part.id === partId)?.model, "Parts");
  const { restore } = usePartChanges();
  const found = useQuery(searchQuery(search)).data;
  const matching = search.trim() === "" || !found ? null : new Set(found);
  const shown = (parts.data ?? []).filter(
    (part) =>
      (kind === "" || (kind === "custom" ? part.origin === "custom" : part.kind === kind)) &&
      (matching === null || matching.has(part.id)),
  );
  const bringBack = async () => {
    if (!away) return;
    await restore.mutateAsync(away.id);
    setAway(null);
    await navigate(`/parts/${away.id}`);
  };
  return (
    <div className="plans-page">
      <PageBar current="parts" />
      {away && (
        <div className="notice" role="status">
          {away.name} is in the bin. Plans that use the part keep it.
          <Button variant="" size="sm" onClick={() => void bringBack()}>
            Undo
          </Button>
        </div>
      )}
      <div className="catalogue-page">
        <section className="part-list" aria-label="Parts">
          <div className="part-search">
            <h1>Parts</h1>
            <Form.Control
              type="search"
              placeholder="Name, kind or value, for example 5 V 3 A"
              aria-label="Search parts"
              value={search}
              onChange={(event) => setSearch(event.target.value)}
            />
            <Form.Select
              aria-label="Kind of part"
              value={kind}
              onChange={(event) => setKind(event.target.value)}
            >
              <option value="">All kinds</option>
              <option value="custom">Custom parts</option>
              {KINDS.map(([id, label]) => (
                <option key={id} value={id}>
                  {label}
                </option>
              ))}
            </Form.Select>
          </div>
          <BrokenParts />
          {parts.isPending && <Loading what="parts" />}
          {parts.isError && !parts.data && (
            <Failure error={parts.error} retry={() => void parts.refetch()} />
          )}
          {KINDS.map(([id, label]) => (
            <Shelf
              key={id}
              label={label}
              parts={shown.filter((part) => part.kind === id)}
              chosen={partId}
            />
          ))}
          {parts.data && shown.length === 0 && (
            <p className="soft part-none">
              {kind === "custom" && search === ""
                ? "No custom parts yet. Open a part and copy it."
                : `No parts match “${search}”.`}
            </p>
          )}
        </section>
        <main className="part-pane" aria-label="Part">
          {partId ? (
            <PartPane
              key={partId}
              id={partId}
              onBin={(name) => {
                setAway({ id: partId, name });
                void navigate("/parts");
              }}
            />
          ) : (
            <div className="quiet-state">
              <strong>Choose a part to see its values and their basis.</strong>
              <span>
                Is your part not listed? Copy a similar or a typical part and enter the values you
                know. Empty fields use typical values with a wider range.
              </span>
            </div>
          )}
        </main>
      </div>
    </div>
  );
}

function Shelf({
  label,
  parts,
  chosen,
}: {
  label: string;
  parts: PartView[];
  chosen: string | undefined;
}) {
  const [params] = useSearchParams();
  if (parts.length === 0) return null;
  const order = { custom: 0, pack: 1, typical: 2 };
  const sorted = [...parts].sort((a, b) => order[a.origin] - order[b.origin]);
  return (
    <section aria-label={label}>
      <h2 className="shelf">{label}</h2>
      <ul className="shelf-list">
        {sorted.map((part) => (
          <li key={part.id}>
            <Link
              to={{ pathname: `/parts/${part.id}`, search: params.toString() }}
              aria-current={part.id === chosen ? "page" : undefined}
            >
              <span className="name">
                {part.model}
                {part.origin === "custom" && <span className="own-tag">custom</span>}
              </span>
              <span className="figure tabular">{textOf(part.figure)}</span>
              <span className="price tabular">
                {part.price === null ? "" : money(part.price, part.currency)}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
