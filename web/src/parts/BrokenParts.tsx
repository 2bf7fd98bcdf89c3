import { useQuery } from "@tanstack/react-query";

import { brokenPartsQuery } from "../api/queries";

/** Custom parts that this version cannot read: kept, told, and to be exported. */
export function BrokenParts() {
  const broken = useQuery(brokenPartsQuery);
  if (!broken.data || broken.data.length === 0) return null;
  const count = broken.data.length;
  return (
    <section className="broken-parts" aria-label="Unreadable parts" role="alert">
      <p>
        {count === 1 ? "1 custom part" : `${count} custom parts`} cannot be read. The data is kept.
        Export it, correct it and import it again.
      </p>
      <ul>
        {broken.data.map((part) => (
          <li key={part.id}>
            <code>{part.id}</code>: {part.why}.{" "}
            <a href={`/api/parts/${encodeURIComponent(part.id)}/document`} download>
              Export
            </a>
          </li>
        ))}
      </ul>
    </section>
  );
}
