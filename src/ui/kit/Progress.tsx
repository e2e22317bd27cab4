import { useColours } from '../theme';

/** How far something is, 0..1, as a strip. */
export function Progress({ share, label }: { share: number; label: string }) {
  const c = useColours();
  const percent = Math.round(share * 100);
  return (
    <div
      role="progressbar"
      aria-label={label}
      aria-valuenow={percent}
      aria-valuemin={0}
      aria-valuemax={100}
      style={{ height: 4, background: c.line }}
    >
      <div style={{ height: 4, width: `${percent}%`, background: c.accent }} />
    </div>
  );
}
