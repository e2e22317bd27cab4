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
import { words } from '../words';

const kinds = [
  { value: 'histogram', label: words.scope.histogram },
  { value: 'parade', label: words.scope.rgbParade },
  { value: 'hues', label: words.scope.hueWheel },
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
  const where = part === 'view' ? words.scope.viewPart : words.scope.wholePart;
  const name = { histogram: words.scope.histogram, parade: words.scope.paradeOfRedGreenAnd, hues: words.scope.hueWheel }[kind];
  return (
    <View>
      <View
        style={{ backgroundColor: c.field, borderRadius: 2, minHeight: strip ? STRIP : PLOT_HEIGHT }}
        aria-label={words.scope.reading(name, where, darks, lights)}
        role="img"
      >
        {kind === 'histogram' && histogram ? <HistogramPlot now={histogram} before={before} tall={strip ? STRIP : undefined} /> : null}
        {kind === 'parade' && parade ? <ParadePlot parade={parade} tall={strip ? STRIP : undefined} /> : null}
        {kind === 'hues' && wheel ? <HuePlot wheel={wheel} /> : null}
      </View>
      {strip ? null : (
        <View style={{ flexDirection: 'row', justifyContent: 'space-between', paddingTop: 3 }}>
          <Text style={{ color: c.quiet, fontSize: 13 }}>{words.scope.blackShare(darks)}</Text>
          {kind === 'histogram' && before ? <Text style={{ color: c.quiet, fontSize: 13 }}>{words.scope.dashedAsPhotographed}</Text> : null}
          <Text style={{ color: c.quiet, fontSize: 13 }}>{words.scope.whiteShare(lights)}</Text>
        </View>
      )}
    </View>
  );
}

/** Mends a cast of the photo itself by its own curves; false when it has none. */
async function mendPhoto(): Promise<boolean> {
  const { piece, change } = useBench.getState();
  const mended = piece && (await withoutCast(piece));
  if (!mended) return false;
  change(
    words.scope.fixColourCast,
    changeReady((r) => ({ ...r, curves: mended.curves })),
  );
  say(words.scope.colourCastFixedWithA(mended.channel));
  return true;
}

/** A scope of one's choice; in words what it shows, and a way to mend a cast: that of the photo, unless `mends` does something else. */
export function Scope({ mends = mendPhoto, none = words.scope.thePhotoItselfHasNo }: { mends?: () => Promise<boolean>; none?: string }) {
  const c = useColours();
  const { histogram, kind, part, clipping, set } = useScopes();
  const mend = async () => {
    if (!(await mends())) say(none);
  };
  const cast = histogram && castSentence(histogram);
  return (
    <View style={{ paddingVertical: 8 }} testID="scope">
      <ScopePlot kind={kind} />
      {cast ? (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8, paddingTop: 4 }}>
          <Text style={{ color: c.ink, flex: 1 }}>{cast}</Text>
          <Act onPress={() => void mend().catch(complain)}>{words.scope.fixColourCast}</Act>
        </View>
      ) : null}
      <Choice bare label={words.scope.scope} options={kinds} value={kind} onChange={(v) => set({ kind: v })} />
      <Fold title={words.scope.whatIsMeasured} changed={part === 'whole' || clipping}>
        <Choice
          bare
          label={words.scope.measured}
          options={[
            { value: 'view', label: words.scope.whatIsInView },
            { value: 'whole', label: words.scope.allOfIt },
          ]}
          value={part}
          onChange={(v) => set({ part: v })}
        />
        <Toggle label={words.scope.showClipping} value={clipping} onChange={(on) => set({ clipping: on })} help={words.scope.clippingHelp} />
      </Fold>
    </View>
  );
}
