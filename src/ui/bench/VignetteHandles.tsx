import { exchangeSource, type SourceInput } from '@/core/piece/edits';
import { vignetteAxes } from '@/core/sources/vignette';
import { chosenCoat, useBench } from '@/store/bench';
import { words } from '../words';
import { cover } from './handleStyles';
import { PointHandle } from './PointHandle';
import { toView, useViewport, zoomOf } from './viewport';

/** Half of the way to the corners: there a vignette of full feather begins to be seen. */
const SEEN = 0.6;

/** The middle of a vignette, dragged on the picture, and its outline. */
export function VignetteHandles() {
  const coat = useBench(chosenCoat);
  const v = useViewport();
  if (!coat || (coat.source as { kind: string }).kind !== 'vignette') return null;
  const source = coat.source as unknown as SourceInput & { cx: number; cy: number; size: number; roundness: number };
  const zoom = zoomOf(v);
  const { width, height } = v.photo;
  const [x, y] = toView(v, zoom, source.cx * width, source.cy * height);
  const [rx, ry] = vignetteAxes(width, height, source.roundness).map((r) => r * source.size * SEEN * zoom);
  return (
    <div style={cover} data-testid="vignette-handles">
      <svg style={cover} aria-hidden>
        <ellipse cx={x} cy={y} rx={rx} ry={ry} fill="none" stroke="#000" strokeOpacity={0.5} strokeWidth={3} />
        <ellipse cx={x} cy={y} rx={rx} ry={ry} fill="none" stroke="#fff" strokeWidth={1.5} strokeDasharray="6 4" />
      </svg>
      <PointHandle
        name={words.vignette.centre}
        at={[source.cx, source.cy]}
        move={(cx, cy) => exchangeSource(coat.id, { ...source, cx, cy })}
        step={words.vignette.moveTheVignette}
        run={`${coat.id}.vignette`}
      />
    </div>
  );
}
