import { router } from 'expo-router';
import { useCallback, useEffect, useState, type CSSProperties, type ReactNode } from 'react';
import { View } from 'react-native';
import { ProgressBar, Text } from 'react-native-paper';
import { getEngine } from '@/store/engine';
import { usePieces, type Sample } from '@/store/pieces';
import { Incomplete, PICTURES, pickFiles } from '@/store/files';
import { isLayers, openLayers } from '@/store/openRaster';
import { complain, say } from '@/store/notices';
import type { PieceCard } from '@/store/records';
import { samples } from '@/store/samples';
import { useSettings } from '@/store/settings';
import { Act } from '../kit/Act';
import { Choice } from '../kit/Choice';
import { Fold } from '../kit/Fold';
import { Page } from '../kit/Page';
import { useDrop } from '../kit/useDrop';
import { SANS, SERIF, useColours } from '../theme';
import { words } from '../words';
import { Storage } from './Storage';

const megabytes = (n: number) => (n < 1e9 ? `${Math.max(1, Math.round(n / 1e6))} MB` : `${(n / 1e9).toFixed(1)} GB`);

/** The saved pieces, and the ways to a new one. */
export function PiecesScreen() {
  const c = useColours();
  const { cards, deleted, space, refresh, create, createSample, remove, bringBack, removeForGood, duplicate } = usePieces();
  const { theme, set } = useSettings();
  const [busy, setBusy] = useState(false);
  /** What this browser cannot do, found by trying. */
  const [trouble, setTrouble] = useState<string | null>(null);

  useEffect(() => void refresh().catch(complain), [refresh]);
  // The engine starts while somebody looks for a photo, once this screen stands, so that the bench need not wait for it.
  useEffect(() => {
    const later = setTimeout(() => void getEngine().catch((error: Error) => setTrouble(error.message)), 1500);
    return () => clearTimeout(later);
  }, []);

  const start = useCallback(async (make: () => Promise<string | null>) => {
    setBusy(true);
    void getEngine().catch(() => undefined);
    try {
      const id = await make();
      if (id !== null) router.navigate(`/piece/${id}`);
    } catch (error) {
      complain(error);
    } finally {
      setBusy(false);
    }
  }, []);
  /** A photo of which a part is missing is opened when the person says so. */
  const openPhoto = useCallback(
    (blob: Blob, name: string) =>
      start(() =>
        (isLayers(name) ? openLayers(blob, name) : create(blob, name)).catch((error: Error) => {
          if (!(error instanceof Incomplete)) throw error;
          const run = () => void start(() => create(blob, name, true));
          say(error.message, { lasting: true, action: { label: words.pieces.openWhatThereIs, run } });
          return null;
        }),
      ),
    [start, create],
  );
  const take = useCallback((files: File[]) => void openPhoto(files[0], files[0].name || words.common.pastedPicturePng), [openPhoto]);
  const over = useDrop(take);
  const pick = async () => {
    const files = await pickFiles(`${PICTURES},image/*,.ora`);
    if (files.length > 0) take(files);
  };
  const paste = async () => {
    try {
      for (const item of await navigator.clipboard.read()) {
        const type = item.types.find((t) => t.startsWith('image/'));
        if (!type) continue;
        const blob = await item.getType(type);
        return openPhoto(blob, words.pieces.pastedPictureOf(type.slice(6)));
      }
      complain(new Error(words.pieces.thereIsNoPictureOn));
    } catch {
      complain(new Error(words.pieces.theBrowserDidNotLet));
    }
  };
  const discard = async ({ id, name }: PieceCard) => {
    await remove(id);
    say(words.common.hasBeenDeleted(name), { action: { label: words.common.undo, run: () => void bringBack(id).catch(complain) } });
  };
  return (
    <Page
      title={words.pieces.dermatex}
      aside={
        <View style={{ flexDirection: 'row' }}>
          <Act plain onPress={() => router.navigate('/materials')}>
            {words.common.shelf}
          </Act>
          <Act plain onPress={() => router.navigate('/looks')}>
            {words.looks.looks}
          </Act>
          <Act plain onPress={() => router.navigate('/batch')}>
            {words.batch.title}
          </Act>
          <Act plain onPress={() => router.navigate('/help')}>
            {words.common.help}
          </Act>
        </View>
      }
    >
      {trouble ? (
        <Text role="alert" style={{ color: c.accent, fontSize: 16, lineHeight: 22 }}>
          {trouble}
        </Text>
      ) : null}
      {busy ? <ProgressBar indeterminate color={c.accent} /> : null}
      <View
        style={{
          gap: 12,
          padding: 20,
          borderWidth: 1.5,
          borderStyle: 'dashed',
          borderColor: over ? c.accent : c.quiet,
          borderRadius: 3,
          backgroundColor: over ? c.field : 'transparent',
        }}
      >
        <Text style={{ fontFamily: SERIF, fontSize: 20, lineHeight: 26, color: c.ink }}>{words.pieces.openAPhotoAndLay}</Text>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
          <Act main icon="image-outline" disabled={busy} onPress={() => void pick()}>
            {words.pieces.openAPhoto}
          </Act>
          <Act icon="content-paste" disabled={busy} onPress={() => void paste()}>
            {words.pieces.paste}
          </Act>
        </View>
        <Text style={{ color: c.quiet }}>{words.pieces.pngJpegOrWebpUp}</Text>
      </View>
      {cards && cards.length > 0 ? (
        <Section title={words.pieces.yourPieces}>
          <div style={grid}>
            {cards.map((card) => (
              <div key={card.id} style={{ minWidth: 0 }} data-testid="piece-card">
                <button
                  type="button"
                  aria-label={words.pieces.openNamed(card.name)}
                  style={{ ...frame, background: c.card }}
                  onClick={() => router.navigate(`/piece/${card.id}`)}
                >
                  {card.picture ? <img src={card.picture} alt="" style={fitted} /> : null}
                </button>
                <div style={{ fontFamily: SERIF, fontSize: 17, lineHeight: '22px', color: c.ink, ...oneLine }}>{card.name}</div>
                <View style={{ flexDirection: 'row', marginLeft: -10 }}>
                  <Act plain labelStyle={{ marginHorizontal: 10 }} onPress={() => void duplicate(card.id).catch(complain)}>
                    {words.common.duplicate}
                  </Act>
                  <Act plain labelStyle={{ marginHorizontal: 10 }} onPress={() => void discard(card).catch(complain)}>
                    {words.common.deleteIt}
                  </Act>
                </View>
              </div>
            ))}
          </div>
        </Section>
      ) : null}
      {deleted.length > 0 ? (
        <Fold title={words.pieces.deletedCount(deleted.length)}>
          <Text style={{ color: c.quiet }}>{words.pieces.deletedPiecesAreKeptFor}</Text>
          {deleted.map((card) => (
            <View key={card.id} style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
              <Text style={{ flex: 1, color: c.ink }} numberOfLines={1}>
                {card.name}
              </Text>
              <Act plain accessibilityLabel={words.pieces.restoreNamed(card.name)} onPress={() => void bringBack(card.id).catch(complain)}>
                {words.common.restore}
              </Act>
              <Act plain accessibilityLabel={words.pieces.deleteNamedForGood(card.name)} onPress={() => void removeForGood(card.id).catch(complain)}>
                {words.pieces.deleteForGood}
              </Act>
            </View>
          ))}
        </Fold>
      ) : null}
      <Section title={words.pieces.fromTheSkerryLightArchive}>
        <Text style={{ color: c.quiet }}>{words.pieces.samplePiecesToTakeApart}</Text>
        <div style={grid}>
          {samples.map((sample) => (
            <SampleCard key={sample.id} sample={sample} disabled={busy} onPress={() => void start(() => createSample(sample))} />
          ))}
        </div>
      </Section>
      <Storage />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'flex-end', justifyContent: 'space-between', gap: 16 }}>
        {space ? (
          <Text style={{ color: c.quiet }} testID="space">
            {words.pieces.spaceUsed(megabytes(space.used), megabytes(space.quota))}
          </Text>
        ) : null}
        <Choice
          label={words.pieces.theme}
          bare
          value={theme}
          options={
            [
              { value: 'system', label: words.pieces.asTheSystem },
              { value: 'light', label: words.common.light },
              { value: 'dark', label: words.pieces.dark },
            ] as const
          }
          onChange={(value) => set({ theme: value })}
        />
      </View>
    </Page>
  );
}

function Section({ title, children }: { title: string; children: ReactNode }) {
  const c = useColours();
  return (
    <View style={{ gap: 10 }}>
      <Text role="heading" aria-level={2} style={{ fontFamily: SERIF, fontSize: 20, lineHeight: 26, color: c.ink }}>
        {title}
      </Text>
      {children}
    </View>
  );
}

function SampleCard({ sample, disabled, onPress }: { sample: Sample; disabled: boolean; onPress(): void }) {
  const c = useColours();
  return (
    <button
      type="button"
      disabled={disabled}
      onClick={onPress}
      aria-label={words.pieces.openTheSample(sample.name)}
      style={{ border: 'none', background: 'none', padding: 0, textAlign: 'left', cursor: 'pointer', minWidth: 0 }}
    >
      <span style={{ ...frame, background: c.card }}>
        <img src={`/demo/pieces/${sample.picture}`} alt="" style={fitted} />
      </span>
      <span style={{ display: 'block', fontFamily: SERIF, fontSize: 17, lineHeight: '22px', color: c.ink }}>{sample.name}</span>
      <span style={{ display: 'block', fontFamily: SANS, fontSize: 14, lineHeight: '18px', color: c.quiet }}>{sample.says}</span>
    </button>
  );
}

const grid: CSSProperties = { display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(158px, 1fr))', gap: 16, alignItems: 'start' };
const frame: CSSProperties = {
  display: 'block',
  width: '100%',
  aspectRatio: '1',
  padding: 10,
  boxSizing: 'border-box',
  border: 'none',
  borderRadius: 2,
  cursor: 'pointer',
  marginBottom: 6,
};
const fitted: CSSProperties = { width: '100%', height: '100%', objectFit: 'contain', filter: 'drop-shadow(0 1px 3px rgba(0,0,0,0.4))' };
const oneLine: CSSProperties = { whiteSpace: 'nowrap', overflow: 'hidden', textOverflow: 'ellipsis' };
