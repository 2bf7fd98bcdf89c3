import Form from "react-bootstrap/Form";

import type { Report } from "../../../api/types";
import { useBench } from "../../bench";

type Header = Report["fit"]["header"];

/** Who answers where on the I2C bus; what can be set is set here. */
export function AddressList({ header }: { header: Header }) {
  const { view, changes } = useBench();
  if (header.addresses.length === 0) return null;
  const set = (entry: Header["addresses"][number], address: number) => {
    const line = view.plan.lines.find((other) => other.id === entry.line);
    changes.act({
      kind: "patch",
      patch: [
        {
          op: "edit",
          line: entry.line,
          addresses: { ...line?.addresses, [String(entry.index)]: address },
        },
      ],
      label: `${entry.item} at ${hex(address)}`,
    });
  };
  return (
    <>
      <h3 className="view-head">On the I2C bus</h3>
      <ul className="address-list">
        {header.addresses.map((entry) => (
          <li key={`${entry.line}/${entry.index}`}>
            {entry.others.length > 0 ? (
              <Form.Select
                size="sm"
                className="tabular"
                aria-label={`Address of ${entry.item}`}
                value={entry.address}
                onChange={(event) => set(entry, Number(event.target.value))}
              >
                {[entry.address, ...entry.others]
                  .sort((a, b) => a - b)
                  .map((address) => (
                    <option key={address} value={address}>
                      {hex(address)}
                    </option>
                  ))}
              </Form.Select>
            ) : (
              <span className="fixed-address tabular">{hex(entry.address)}</span>
            )}
            <span>{entry.item}</span>
          </li>
        ))}
      </ul>
    </>
  );
}

function hex(address: number): string {
  return `0x${address.toString(16).toUpperCase().padStart(2, "0")}`;
}
