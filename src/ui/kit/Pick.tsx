import { SANS, useColours } from '../theme';

interface PickProps {
  label: string;
  /** What it says to a reader of the screen, where that is more than the label. */
  says?: string;
  /** Chosen now; the empty one stands for nothing, with `none` as its words. */
  value: string;
  none?: string;
  options: readonly { value: string; label: string }[];
  onPick(value: string): void;
}

/** One of a list, by the browser's own menu: long lists scroll, and keys and screen readers know it. */
export function Pick({ label, says = label, value, none, options, onPick }: PickProps) {
  const c = useColours();
  return (
    <label style={{ display: 'flex', alignItems: 'center', gap: 10, minHeight: 44, color: c.ink, fontSize: 15, fontFamily: SANS }}>
      <span style={{ flex: 1 }}>{label}</span>
      <select
        aria-label={says}
        value={value}
        onChange={(e) => onPick(e.target.value)}
        style={{
          minHeight: 44,
          maxWidth: 210,
          fontSize: 15,
          fontFamily: SANS,
          color: c.ink,
          background: c.raised,
          border: `1px solid ${c.quiet}`,
          borderRadius: 2,
          padding: '0 8px',
        }}
      >
        {none === undefined ? null : <option value="">{none}</option>}
        {options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.label}
          </option>
        ))}
      </select>
    </label>
  );
}
