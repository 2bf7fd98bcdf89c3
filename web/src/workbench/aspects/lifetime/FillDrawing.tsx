import { figure, capacity } from "../../../ui/numbers";
import { useWidth } from "../../../ui/useWidth";
import { useBench } from "../../bench";
import { fillLine } from "./ropes";

const TOP = 24;
const TALL = 76;

/** Free space over time it is over the months, up to the brim and what comes after. */
export function FillDrawing() {
  const { report } = useBench();
  const [frame, width] = useWidth(640);
  const { filling, wanted_years } = report.lifetime;
  const line = fillLine(filling, wanted_years);
  if (filling.capacity_gb <= 0) return null;
  const head = `${capacity(filling.capacity_gb)} capacity${filling.day_gb > 0 ? `; ${grows(filling.day_gb)}` : ""}`;
  return (
    <section className="data-part" aria-label="Free space over time">
      <h3>
        Free space over time <span className="soft fw-normal">{head}</span>
      </h3>
      <div ref={frame}>
        {line === null ? (
          <p className="soft">No transfer stays in the kit, so the storage does not fill.</p>
        ) : (
          <svg
            className="drawing fill-drawing"
            viewBox={`0 0 ${width} ${TOP + TALL + 22}`}
            role="img"
            aria-label={`Full after ${after(filling.days ?? 0)}`}
          >
            <FillShape line={line} width={width} problems={filling.when_full === "stops"} />
            <text
              x={Math.max(60, (line.full / line.span) * (width - 20))}
              y={TOP - 10}
              textAnchor="middle"
            >
              full after {after(filling.days ?? 0)}
            </text>
          </svg>
        )}
      </div>
    </section>
  );
}

interface ShapeProps {
  line: NonNullable<ReturnType<typeof fillLine>>;
  width: number;
  problems: boolean;
}

function FillShape({ line, width, problems }: ShapeProps) {
  const x = (month: number) => (month / line.span) * (width - 20);
  const y = (share: number) => TOP + TALL * (1 - share);
  const path = line.points.map(
    ([month, share], index) => `${index ? "L" : "M"}${x(month)} ${y(share)}`,
  );
  const step = [1, 2, 3, 6, 12, 24, 60].find((months) => line.span / months <= 7) ?? 120;
  const ticks = Array.from(
    { length: Math.floor(line.span / step) + 1 },
    (_, index) => index * step,
  );
  return (
    <>
      <path className="axis" d={`M0 ${TOP}V${TOP + TALL}H${width - 20}`} />
      <path className="brim" d={`M0 ${TOP}H${width - 20}`} />
      <path className="level" d={path.join("")} />
      {ticks.map((month) => (
        <text
          key={month}
          className="small"
          x={x(month)}
          y={TOP + TALL + 15}
          textAnchor={month ? "middle" : "start"}
        >
          {month}
          {month === ticks.at(-1) && " months"}
        </text>
      ))}
      {line.span > line.full * 1.3 && (
        <text className="small" x={width - 24} y={TOP + TALL * 0.62} textAnchor="end">
          {problems ? "then new files are not saved" : "then the oldest files are deleted"}
        </text>
      )}
    </>
  );
}

function grows(gbADay: number): string {
  return gbADay * 7 < 1
    ? `${figure(gbADay * 30.4, "GB")} per month`
    : `${figure(gbADay * 7, "GB")} per week`;
}

function after(days: number): string {
  if (days < 60) return `${Math.round(days)} days`;
  const months = days / 30.44;
  return months < 36 ? `${Math.round(months)} months` : `${Math.round(months / 12)} years`;
}
