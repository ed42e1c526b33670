/** Leaves of a panel, one shown at a time. */
export function Tabs<T extends string>({
  label,
  tabs,
  value,
  onChange,
}: {
  label: string;
  tabs: Readonly<Record<T, string>>;
  value: T;
  onChange: (tab: T) => void;
}) {
  return (
    <div
      role="tablist"
      aria-label={label}
      style={{ display: 'flex', gap: 2, margin: '8px 0 10px', borderBottom: '1px solid var(--line)' }}
    >
      {(Object.keys(tabs) as T[]).map((id) => (
        // keys of the table
        <button
          key={id}
          role="tab"
          aria-selected={value === id}
          className="quiet"
          style={{
            borderRadius: 0,
            padding: '4px 7px',
            color: value === id ? 'var(--text)' : undefined,
            boxShadow: value === id ? 'inset 0 -2px var(--tide)' : undefined,
          }}
          onClick={() => onChange(id)}
        >
          {tabs[id]}
        </button>
      ))}
    </div>
  );
}
