import { useState } from "react";
import Button from "react-bootstrap/Button";

import { AboveView } from "./AboveView";
import { ConnectionsView } from "./ConnectionsView";
import { HeaderView } from "./HeaderView";
import { SectionView } from "./SectionView";

const VIEWS = {
  side: { label: "Side view", view: SectionView },
  above: { label: "Top view", view: AboveView },
  header: { label: "GPIO header", view: HeaderView },
  plugs: { label: "Connections", view: ConnectionsView },
};
type ViewId = keyof typeof VIEWS;

/** Will it go together: the stack from two sides, the header, and what is plugged where. */
export function FitView() {
  const [chosen, setChosen] = useState<ViewId>("side");
  const View = VIEWS[chosen].view;
  return (
    <>
      <div className="aspect-bar" role="group" aria-label="View">
        {(Object.keys(VIEWS) as ViewId[]).map((id) => (
          <Button
            key={id}
            variant=""
            size="sm"
            aria-pressed={id === chosen}
            onClick={() => setChosen(id)}
          >
            {VIEWS[id].label}
          </Button>
        ))}
      </div>
      <View />
    </>
  );
}
