/** What a select offers: each value by its label. */
export function Options({ of }: { of: Readonly<Record<string, string>> }) {
  return Object.entries(of).map(([value, label]) => (
    <option key={value} value={value}>
      {label}
    </option>
  ));
}
