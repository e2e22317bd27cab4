import { exchangeSource, type SourceInput } from '@/core/piece/edits';
import { chosenCoat, useBench } from '@/store/bench';
import { words } from '../words';
import { cover } from './handleStyles';
import { PointHandle } from './PointHandle';

/** Where a splatter was thrown, dragged on the picture. */
export function SplatterHandle() {
  const coat = useBench(chosenCoat);
  if (!coat || (coat.source as { kind: string }).kind !== 'splatter') return null;
  const source = coat.source as unknown as SourceInput & { x: number; y: number };
  return (
    <div style={cover} data-testid="splatter-handle">
      <PointHandle
        name={words.splatter.origin}
        at={[source.x, source.y]}
        move={(x, y) => exchangeSource(coat.id, { ...source, x, y })}
        step={words.splatter.moveTheSplatter}
        run={`${coat.id}.splatter`}
      />
    </div>
  );
}
