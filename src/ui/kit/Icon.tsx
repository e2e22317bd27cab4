import icons from './icons.json';

/** The icons that are used, by the names under which components ask for them: scripts/icons.mjs. */
const paths: Record<string, string> = icons;

export interface IconProps {
  name: string;
  color?: string;
  size: number;
}

/** Icons say nothing that the words beside them do not. */
export function Icon({ name, color, size }: IconProps) {
  return (
    <svg aria-hidden width={size} height={size} viewBox="0 0 24 24" style={{ display: 'block' }}>
      <path d={paths[name] ?? ''} fill={color ?? 'currentColor'} />
    </svg>
  );
}
