import { useEffect } from 'react';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { castSentence } from '@/core/measure/histogram';
import { shownPiece, useBench } from '@/store/bench';
import { complain, say } from '@/store/notices';
import { changeReady } from '@/store/ready';
import { askAgain, measureBefore, useScopes, withoutCast, type ScopeKind } from '@/store/scopes';
import { Act } from '../kit/Act';
import { Choice } from '../kit/Choice';
import { Fold } from '../kit/Fold';
import { Toggle } from '../kit/Toggle';
import { useColours } from '../theme';
import { HistogramPlot, HuePlot, ParadePlot, PLOT_HEIGHT } from './scopePlots';

const kinds = [
  { value: 'histogram', label: 'Histogram' },
  { value: 'parade', label: 'RGB parade' },
  { value: 'hues', label: 'Hue wheel' },
] as const satisfies readonly { value: ScopeKind; label: string }[];

/** Height of the strip, in px. */
const STRIP = 44;

/** What is in the picture, measured: as a histogram, a parade or a wheel of hues. As a strip it is low and without figures, to leave room for sliders. */
export function ScopePlot({ kind, strip }: { kind: ScopeKind; strip?: boolean }) {
  const c = useColours();
  const { histogram, parade, wheel, before, part } = useScopes();
  const piece = useBench(shownPiece);
  useEffect(() => {
    const count = (by: number) => useScopes.setState((s) => ({ watchers: s.watchers + by }));
    count(1);
    return () => count(-1);
  }, []);
  // What is on the canvas was drawn before anybody watched, or watched for this.
  useEffect(askAgain, [kind, part]);
  useEffect(() => {
    if (piece) void measureBefore(piece).catch(complain);
  }, [piece]);
  const percent = (n: number, of: number) => `${((100 * n) / of).toFixed(n > 0 && n < of / 100 ? 1 : 0)} %`;
  const { black, white, pixels } = histogram ?? { black: 0, white: 0, pixels: 1 };
  const [darks, lights] = [percent(black, pixels), percent(white, pixels)];
  const where = part === 'view' ? 'what is in view' : 'the whole picture';
  const name = { histogram: 'Histogram', parade: 'Parade of red, green and blue', hues: 'Hue wheel' }[kind];
  return (
    <View>
      <View
        style={{ backgroundColor: c.field, borderRadius: 2, minHeight: strip ? STRIP : PLOT_HEIGHT }}
        aria-label={`${name} of ${where}: ${darks} black, ${lights} white`}
        role="img"
      >
        {kind === 'histogram' && histogram ? <HistogramPlot now={histogram} before={before} tall={strip ? STRIP : undefined} /> : null}
        {kind === 'parade' && parade ? <ParadePlot parade={parade} tall={strip ? STRIP : undefined} /> : null}
        {kind === 'hues' && wheel ? <HuePlot wheel={wheel} /> : null}
      </View>
      {strip ? null : (
        <View style={{ flexDirection: 'row', justifyContent: 'space-between', paddingTop: 3 }}>
          <Text style={{ color: c.quiet, fontSize: 13 }}>{darks} black</Text>
          {kind === 'histogram' && before ? <Text style={{ color: c.quiet, fontSize: 13 }}>dashed: as photographed</Text> : null}
          <Text style={{ color: c.quiet, fontSize: 13 }}>{lights} white</Text>
        </View>
      )}
    </View>
  );
}

/** A scope of one's choice; in words what it shows, and a way to mend a cast. */
export function Scope() {
  const c = useColours();
  const { histogram, kind, part, clipping, set } = useScopes();
  const mend = async () => {
    const { piece, change } = useBench.getState();
    const mended = piece && (await withoutCast(piece));
    if (!mended) return say('The photo itself has no colour cast: it comes from the coats.');
    change(
      'Fix colour cast',
      changeReady((r) => ({ ...r, curves: mended.curves })),
    );
    say(`Colour cast fixed with a curve on ${mended.channel}, under Light.`);
  };
  const cast = histogram && castSentence(histogram);
  return (
    <View style={{ paddingVertical: 8 }} testID="scope">
      <ScopePlot kind={kind} />
      {cast ? (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8, paddingTop: 4 }}>
          <Text style={{ color: c.ink, flex: 1 }}>{cast}</Text>
          <Act onPress={() => void mend().catch(complain)}>Fix colour cast</Act>
        </View>
      ) : null}
      <Choice bare label="Scope" options={kinds} value={kind} onChange={(v) => set({ kind: v })} />
      <Fold title="What is measured" changed={part === 'whole' || clipping}>
        <Choice
          bare
          label="Measured"
          options={[
            { value: 'view', label: 'What is in view' },
            { value: 'whole', label: 'All of it' },
          ]}
          value={part}
          onChange={(v) => set({ part: v })}
        />
        <Toggle
          label="Show what is clipped"
          value={clipping}
          onChange={(on) => set({ clipping: on })}
          help="Red where white is reached, blue where black is."
        />
      </Fold>
    </View>
  );
}
