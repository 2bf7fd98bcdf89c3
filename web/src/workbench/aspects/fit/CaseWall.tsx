interface Props {
  shell: { x: number; y: number; width: number; height: number; wall: number; open: boolean };
}

/** The walls of a case in section; an open one is only hinted at. */
export function CaseWall({ shell }: Props) {
  return (
    <rect
      className={`case-wall ${shell.open ? "open" : ""}`}
      x={shell.x - shell.wall / 2}
      y={shell.y - shell.wall / 2}
      width={shell.width + shell.wall}
      height={shell.height + shell.wall}
      rx={4}
      strokeWidth={shell.open ? 1.5 : shell.wall}
    />
  );
}
