import { isConvex, type Corners } from '@/core/image/corners';
import { changeStep } from '@/core/piece/edits';
import { chosenCoat, useBench } from '@/store/bench';
import { words } from '../words';
import { cover } from './handleStyles';
import { PointHandle } from './PointHandle';
import { toView, useViewport, zoomOf } from './viewport';

const names = [words.corner.leftUpperCorner, words.corner.rightUpperCorner, words.corner.rightLowerCorner, words.corner.leftLowerCorner];

/** The four corners of a coat that is put in perspective, dragged on the picture. */
export function PerspectiveHandles() {
  const coat = useBench(chosenCoat);
  const v = useViewport();
  const index = coat?.treatments.findLastIndex((step) => step.kind === 'corners' && step.active !== false) ?? -1;
  if (!coat || index < 0) return null;
  const { corners } = coat.treatments[index] as unknown as { corners: Corners };
  const zoom = zoomOf(v);
  const outline = corners.map(([x, y]) => toView(v, zoom, x * v.photo.width, y * v.photo.height).join()).join(' ');
  const move = (i: number) => (x: number, y: number) => {
    const next = corners.map((corner, k) => (k === i ? [x, y] : corner)) as Corners;
    // A corner that would make a dent stays where it is.
    return changeStep(coat.id, index, { corners: isConvex(next) ? next : corners });
  };
  return (
    <div style={cover} data-testid="perspective-handles">
      <svg style={cover} aria-hidden>
        <polygon points={outline} fill="none" stroke="#000" strokeOpacity={0.5} strokeWidth={3} />
        <polygon points={outline} fill="none" stroke="#fff" strokeWidth={1.5} />
      </svg>
      {corners.map((corner, i) => (
        <PointHandle
          key={names[i]}
          name={names[i]}
          at={corner}
          move={move(i)}
          step={words.corner.movePerspective}
          run={`${coat.id}.${index}.corner`}
          square
        />
      ))}
    </div>
  );
}
