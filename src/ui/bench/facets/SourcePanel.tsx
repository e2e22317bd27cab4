import { View } from 'react-native';
import { Text } from 'react-native-paper';
import * as z from 'zod';
import { exchangeSource, type Edit, type SourceInput } from '@/core/piece/edits';
import type { Coat } from '@/core/piece/schema';
import { share } from '@/core/schema';
import { sourceByKind } from '@/core/sources';
import { stopColour, type Stop } from '@/core/sources/gradient';
import { toHex } from '@/core/measure/palette';
import { useBench } from '@/store/bench';
import { compareStep } from '@/store/contact';
import { controlEdit, panelEdit, stepOf } from '@/store/editing';
import { usePalette } from '@/store/palette';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { Colour } from '../../kit/Colour';
import { Fold } from '../../kit/Fold';
import { Panel } from '../../kit/Panel';
import { useColours } from '../../theme';
import { words } from '../../words';

/** The figures of a source that is made of numbers: a colour, a gradient, grain. */
export function SourcePanel({ coat }: { coat: Coat }) {
  const colours = usePalette();
  const { change } = useBench.getState();
  const source = coat.source as unknown as SourceInput & { stops?: Stop[] };
  const { schema, label } = sourceByKind(source.kind);
  const set = (key: string, value: unknown) => exchangeSource(coat.id, { ...source, [key]: value });
  return (
    <View>
      <Panel schema={schema} values={source} colours={colours} {...panelEdit(set, stepOf(label), `${coat.id}.source`)} />
      {source.stops ? <Stops stops={source.stops} colours={colours} set={(stops) => set('stops', stops)} run={`${coat.id}.stops`} /> : null}
      <Act plain icon="view-grid-outline" accessibilityLabel={words.contact.compareNamed(label.toLowerCase())} onPress={() => compareStep('source')}>
        {words.contact.compareVariations}
      </Act>
      {typeof source.seed === 'number' ? (
        <Act
          icon="dice-5-outline"
          onPress={() =>
            change(words.source.other(label.toLowerCase()), exchangeSource(coat.id, { ...source, seed: ((source.seed as number) * 31 + 7) % 9973 }))
          }
        >
          {words.source.other(label.toLowerCase())}
        </Act>
      ) : null}
    </View>
  );
}

const stopSchema = z.object({
  at: share(words.common.place, 0, { help: words.source.alongTheLineOrFrom }),
  alpha: share(words.source.opacity, 1, { help: words.source.atThePictureShowsThrough }),
});

interface StopsProps {
  stops: Stop[];
  colours: readonly string[];
  set(stops: Stop[]): Edit;
  /** What tells these stops' steps from others (`panelEdit`). */
  run: string;
}

/** Colours of a gradient in their order; a stop never passes its neighbours. */
function Stops({ stops, colours, set, run }: StopsProps) {
  const c = useColours();
  const { change } = useBench.getState();
  const edit = (i: number, values: Partial<Stop>): Stop[] => {
    const low = stops[i - 1]?.at ?? 0;
    const high = stops[i + 1]?.at ?? 1;
    return stops.map((s, k) => (k === i ? { ...s, ...values, at: Math.min(high, Math.max(low, values.at ?? s.at)) } : s));
  };
  const band = Array.from({ length: 24 }, (_, i) => {
    const [r, g, b, a] = stopColour(stops, i / 23);
    return `rgba(${Math.round(r * 255)}, ${Math.round(g * 255)}, ${Math.round(b * 255)}, ${a}) ${((i / 23) * 100).toFixed(1)}%`;
  });
  /** Between the two that lie farthest apart, in the colour that is there. */
  const add = () => {
    let best = 0;
    for (let i = 1; i + 1 < stops.length; i++) if (stops[i + 1].at - stops[i].at > stops[best + 1].at - stops[best].at) best = i;
    const at = (stops[best].at + stops[best + 1].at) / 2;
    const [r, g, b, alpha] = stopColour(stops, at);
    change(words.source.addAStop, set([...stops.slice(0, best + 1), { at, colour: toHex([r, g, b]), alpha }, ...stops.slice(best + 1)]));
  };
  return (
    <View style={{ gap: 4, paddingTop: 8 }}>
      <div
        role="img"
        aria-label={words.source.theGradient}
        style={{
          height: 28,
          borderRadius: 2,
          border: `1px solid ${c.line}`,
          background: `linear-gradient(90deg, ${band.join(', ')}), repeating-conic-gradient(#999 0 25%, #ccc 0 50%) 0 0 / 14px 14px`,
        }}
      />
      {stops.map((stop, i) => (
        <Fold key={i} title={words.source.stopAtPercent(i + 1, Math.round(stop.at * 100))}>
          <Colour
            label={words.source.colourOfStop(i + 1)}
            value={stop.colour}
            offered={colours}
            {...controlEdit((colour: string) => set(edit(i, { colour })), words.source.stopColour(i + 1), `${run}.${i}.colour`)}
          />
          <Panel
            schema={stopSchema}
            values={{ at: stop.at, alpha: stop.alpha }}
            {...panelEdit((key, v) => set(edit(i, { [key]: v })), stepOf(words.source.stop(i + 1)), `${run}.${i}`)}
          />
          {stops.length > 2 ? (
            <Act plain onPress={() => change(words.source.removeAStop, set(stops.filter((_, k) => k !== i)))}>
              {words.source.removeStop(i + 1)}
            </Act>
          ) : null}
        </Fold>
      ))}
      <Acts>
        <Act disabled={stops.length >= 16} onPress={add}>
          {words.source.addAStop}
        </Act>
        <Act plain onPress={() => change(words.source.reverseTheGradient, set([...stops].reverse().map((s) => ({ ...s, at: 1 - s.at }))))}>
          {words.source.reverse}
        </Act>
      </Acts>
      <Text style={{ color: c.quiet, fontSize: 13 }}>{words.source.dragItsTwoEndsOn}</Text>
    </View>
  );
}
