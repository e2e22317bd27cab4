import { router } from 'expo-router';
import { useEffect, useState, type CSSProperties } from 'react';
import { useWindowDimensions, View } from 'react-native';
import { Text } from 'react-native-paper';
import { marksOf } from '@/core/piece/marks';
import { coatName, sourceName } from '@/core/piece/naming';
import { chosenCoat, useBench, type FacetId } from '@/store/bench';
import { provideThumbnail } from '@/store/saving';
import { leaveBench, openPiece } from '@/store/session';
import { useArming } from '@/store/arming';
import { brushFor, isMarking, markSentence, nudgeSentence, strokeSentence, useBrush, useNudgeBrush } from '@/store/brush';
import { isCutting, useCutting } from '@/store/cutting';
import { isNudging, useNudging } from '@/store/nudging';
import { download } from '@/store/files';
import { complain } from '@/store/notices';
import { rawPiece } from '@/store/records';
import { useGuards } from '@/store/guards';
import { useReady, type ReadyTool } from '@/store/ready';
import { useOwn } from '@/store/own';
import { useRail } from '@/store/several';
import { useSettings } from '@/store/settings';
import { useTrying } from '@/store/trying';
import { Act } from '../kit/Act';
import { Notices } from '../kit/Notices';
import { SANS, useColours } from '../theme';
import { CoatTabs, PhotoTab } from './CompareTabs';
import { cutSentence } from './cutTool';
import { DropAsk } from './DropAsk';
import { FacetBody, facetLabel, FacetTabs } from './Facets';
import { guardSentence } from './guardTool';
import { Hints } from './Hints';
import { PanelEdge } from './PanelEdge';
import { PictureView } from './PictureView';
import { Rail } from './Rail';
import { SaveBanner } from './SaveBanner';
import { SeveralBar } from './SeveralBar';
import { Sheet } from './Sheet';
import { TopBar } from './TopBar';
import { useBenchKeys } from './useBenchKeys';
import { drawWhole } from './useThumb';
import { words } from '../words';

export const WIDE = 1024;
/** Below this height, a phone on its side or a page at 200 %, the panel stands beside the picture too. */
const SHORT = 500;

/** The bench: the picture, the rail under it at every width, and the open facet beside or over it. */
export function BenchScreen({ id }: { id: string }) {
  const c = useColours();
  const { width, height } = useWindowDimensions();
  const panelWidth = useSettings((s) => s.panelWidth);
  const [trouble, setTrouble] = useState<string | null>(null);
  const piece = useBench((s) => s.piece);
  const chosen = useBench((s) => s.chosen);
  const facet = useBench((s) => s.facet);
  const several = useRail((s) => s.several !== null);
  const wide = width >= WIDE;
  const short = height < SHORT;
  const shown: FacetId = facet ?? 'light';
  /** The panel stands beside the picture, which keeps at least half of the width. */
  const beside = wide || short;
  useBenchKeys();
  useEffect(() => {
    if (beside && facet === null) useBench.getState().openFacet(chosen ? 'blend' : 'light');
  }, [beside, facet, chosen]);

  useEffect(() => {
    void useOwn.getState().refresh();
    void openPiece(id).then(
      (found) => setTrouble(found ? null : words.bench.thisPieceIsNotIn),
      (error: Error) => setTrouble(error.message),
    );
    provideThumbnail(async () => {
      const current = useBench.getState().piece;
      return current ? drawWhole(current, { kind: 'piece' }, 480) : null;
    });
    return leaveBench;
  }, [id]);

  if (trouble) {
    return (
      <View style={{ flex: 1, alignItems: 'center', justifyContent: 'center', gap: 16, padding: 24, backgroundColor: c.chrome }}>
        <Text role="alert" style={{ maxWidth: 480, textAlign: 'center' }}>
          {trouble}
        </Text>
        <Act onPress={() => void saveRecord(id).catch(complain)}>{words.bench.saveRecord}</Act>
        <Act main onPress={() => router.replace('/')}>
          {words.common.backToThePieces}
        </Act>
      </View>
    );
  }
  if (piece?.id !== id) return <View style={{ flex: 1, backgroundColor: c.card }} />;
  return (
    <div style={{ ...screen, background: c.chrome }}>
      <TopBar />
      <SaveBanner />
      <DropAsk />
      <div style={middle}>
        <div style={column}>
          <div style={stage}>
            <PictureView />
            <Notices over="picture" />
            {beside || !facet ? <Hints /> : null}
          </div>
          {wide && !short ? null : <StrokeLine />}
          {!beside && facet && !several ? (
            <Sheet label={facetLabel(facet)}>
              <FacetBody facet={facet} closes />
            </Sheet>
          ) : (
            <div style={strip}>
              <Rail compact={short} />
              {wide && !short ? <StrokeLine aside /> : null}
            </div>
          )}
          {!beside && !several && chosen === null && !facet && piece.coats.length === 0 ? <PhotoActs /> : null}
          {several ? <SeveralBar /> : !beside && facet !== 'add' ? <FacetTabs open={facet} closes /> : null}
        </div>
        {beside ? (
          <>
            <PanelEdge />
            <div style={{ ...side, width: Math.min(facet === 'contact' && wide ? 520 : panelWidth, width / 2), borderLeft: `1px solid ${c.line}` }}>
              <FacetTabs open={facet} />
              <div role="tabpanel" aria-label={facetLabel(shown)} style={panel}>
                <FacetBody facet={shown} />
              </div>
            </div>
          </>
        ) : null}
      </div>
    </div>
  );
}

/** Saves the record of a piece that cannot be opened, as it is kept. */
async function saveRecord(id: string): Promise<void> {
  const text = await rawPiece(id);
  if (text === null) return complain(new Error(words.bench.noSuchPiece));
  download(new Blob([text], { type: 'application/json' }), `${id}.piece.json`);
}

/** On a phone, the first things to do with a photo that has no coat yet. */
function PhotoActs() {
  const c = useColours();
  const { openFacet } = useBench.getState();
  return (
    <View style={{ backgroundColor: c.chrome, padding: 8, gap: 8, flexDirection: 'row', borderTopWidth: 1, borderTopColor: c.line }}>
      <Act style={{ flex: 1 }} onPress={() => openFacet('starts')}>
        {words.common.startFromALook}
      </Act>
      <Act main style={{ flex: 1 }} onPress={() => openFacet('add')}>
        {words.common.addAMaterial}
      </Act>
    </View>
  );
}

function readySentence(facet: FacetId | null, tool: ReadyTool, second: boolean, isArmed: boolean): string | null {
  if (facet === 'frame' && tool === 'line') return words.bench.drawAlongSomethingLevelOr;
  if (facet === 'frame' && tool === 'uprights') return second ? words.bench.drawAlongAnotherUpright : words.bench.drawAlongAnUpright;
  if (facet === 'frame' && tool === 'corners') return words.bench.dragTheCornersOntoWhat;
  if (facet === 'frame' && tool === 'bend') return words.bench.drawAlongSomethingStraightThat;
  if (facet === 'frame') return words.bench.dragTheFrameOrIts;
  if (facet === 'spots') return isArmed ? words.bench.tapOrPaintOverA : null;
  if (facet === 'colour' && tool === 'hue') return words.bench.tapAColourToWork;
  return facet === 'colour' && tool === 'neutral' ? words.bench.tapSomethingThatShouldBe : null;
}

const coarse = typeof window !== 'undefined' && window.matchMedia?.('(pointer: coarse)').matches;
const layingSentence = (name: string) => (coarse ? words.bench.fingerMoves(name) : words.bench.dragMoves(name));

/** Says what a stroke on the picture will do, with what can be compared: in one line, or `aside` the rail. */
function StrokeLine({ aside }: { aside?: boolean }) {
  const c = useColours();
  const brush = useBrush();
  const marking = useBench(isMarking);
  const coat = useBench(chosenCoat);
  const marks = marksOf(coat);
  const markBrush = brushFor(marks)();
  const nudging = useBench(isNudging);
  const cutting = useBench(isCutting);
  const nudgeStrength = useNudgeBrush((s) => s.strength);
  // Read from the store by the sentence.
  useNudging((s) => s.does);
  const facet = useBench((s) => s.facet);
  const names = useOwn((s) => s.names);
  const tool = useReady((s) => s.tool);
  const second = useReady((s) => s.first !== null);
  // The sentence is read from the store, whose changes draw it again.
  useGuards((s) => `${s.region}.${s.does}`);
  const isArmed = useArming((s) => s.isArmed);
  useCutting((s) => s.does);
  const guard = facet === 'guards' && isArmed ? guardSentence() : cutting && isArmed ? cutSentence() : null;
  const ready = guard ?? (coat ? null : readySentence(facet, tool, second, isArmed));
  const live = ready !== null || (coat !== null && (((facet === 'where' || marking || nudging) && isArmed) || facet === 'lay'));
  const name = coat ? coatName(coat, names) : '';
  const { tried, look, way } = useTrying();
  const trying = look?.recipe.name ?? way?.name ?? (tried ? sourceName(tried, names) : null);
  const text = trying
    ? words.bench.trying(trying)
    : (ready ??
      (!coat || !live
        ? words.bench.dragToPan
        : marking
          ? markSentence(markBrush, name, marks?.use === 'light')
          : nudging
            ? nudgeSentence(name, nudgeStrength)
            : facet === 'where'
              ? strokeSentence(brush, name)
              : layingSentence(name)));
  const sentence = (
    <div
      role="status"
      data-testid="stroke-line"
      style={{ ...(aside ? besideRail : sentenceStyle), color: live ? c.accent : c.quiet, fontFamily: SANS }}
    >
      {coat && live && !coat.visible ? words.bench.theCoatIsHidden(text) : text}
    </div>
  );
  if (aside)
    return (
      <div style={{ ...column, flex: '0 0 232px', background: c.chrome, borderTop: `1px solid ${c.line}`, borderLeft: `1px solid ${c.line}` }}>
        {sentence}
        <div style={{ display: 'flex', gap: 6, padding: '0 12px 8px' }}>
          <PhotoTab />
          <CoatTabs />
        </div>
      </div>
    );
  return (
    <div style={{ ...lineStyle, background: c.chrome, borderTop: `1px solid ${c.line}` }}>
      <PhotoTab />
      {sentence}
      <CoatTabs />
    </div>
  );
}

const screen: CSSProperties = { display: 'flex', flexDirection: 'column', height: '100%', width: '100%' };
const middle: CSSProperties = { display: 'flex', flex: 1, minHeight: 0 };
const column: CSSProperties = { display: 'flex', flexDirection: 'column', flex: 1, minWidth: 0, position: 'relative' };
const stage: CSSProperties = { position: 'relative', flex: 1, minHeight: 0 };
const side: CSSProperties = { display: 'flex', flexDirection: 'column', minHeight: 0 };
const panel: CSSProperties = { display: 'flex', flexDirection: 'column', flex: 1, minHeight: 0 };
const lineStyle: CSSProperties = { display: 'flex', alignItems: 'center', minHeight: 44, flexShrink: 0 };
const besideRail: CSSProperties = { flex: 1, padding: '8px 12px 0', fontSize: 14, lineHeight: '17px' };
const strip: CSSProperties = { display: 'flex', flexShrink: 0, minWidth: 0 };
const sentenceStyle: CSSProperties = {
  flex: 1,
  minWidth: 0,
  fontSize: 14,
  lineHeight: '17px',
  padding: '2px 12px',
  textAlign: 'center',
  textWrap: 'balance',
};
