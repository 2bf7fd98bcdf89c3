/** The hatching of what is short or clashes, for use as `url(#id)`. Palette colours. */
export function Hatch({ id }: { id: string }) {
  return (
    <pattern
      id={id}
      width={7}
      height={7}
      patternUnits="userSpaceOnUse"
      patternTransform="rotate(45)"
    >
      <rect width={7} height={7} fill="var(--problem-pale)" />
      <rect width={2.4} height={7} fill="var(--problem-fill)" />
    </pattern>
  );
}
