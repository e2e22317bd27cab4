import { router, useLocalSearchParams } from 'expo-router';
import { useCallback, useEffect, useState } from 'react';
import { View } from 'react-native';
import { ProgressBar, Text, TextInput } from 'react-native-paper';
import {
  canChooseFolder,
  chooseFolder,
  clearBatch,
  countOf,
  loadBatch,
  pauseBatch,
  prepareBatch,
  runBatch,
  saveZip,
  stopBatch,
  useBatch,
} from '@/store/batch';
import { PICTURES, pickFiles } from '@/store/files';
import { useLooks } from '@/store/looks';
import { complain } from '@/store/notices';
import { useOwn } from '@/store/own';
import { useSettings } from '@/store/settings';
import { FormatPanel } from '../export/FormatPanel';
import { Act } from '../kit/Act';
import { Acts } from '../kit/Acts';
import { Page } from '../kit/Page';
import { Pick } from '../kit/Pick';
import { useDrop } from '../kit/useDrop';
import { useColours } from '../theme';
import { words } from '../words';
import { Results } from './Results';

/** Longest side that is offered where photos of every size are done. */
const LONGEST = 12_000;

/** One look on many photos. */
export function BatchScreen() {
  const job = useBatch((s) => s.job);
  useEffect(() => {
    void loadBatch().catch(complain);
    void useLooks.getState().refresh().catch(complain);
    void useOwn.getState().refresh().catch(complain);
  }, []);
  const back = () => (router.canGoBack() ? router.back() : router.replace('/'));
  return (
    <Page title={words.batch.title} back={{ label: words.common.back, go: back }}>
      {job ? <Job /> : <NewJob />}
    </Page>
  );
}

function NewJob() {
  const c = useColours();
  const { shipped, own } = useLooks();
  const looks = [...own, ...(shipped ?? [])];
  const [photos, setPhotos] = useState<readonly File[]>([]);
  const { look: asked } = useLocalSearchParams<{ look?: string }>();
  const [look, setLook] = useState(asked ?? '');
  const [pattern, setPattern] = useState('{name}');
  const [busy, setBusy] = useState(false);
  const take = useCallback((files: File[]) => setPhotos((now) => [...now, ...files]), []);
  useDrop(take);
  const chosen = looks.find(({ id }) => id === look);
  const begin = async () => {
    if (!chosen) return;
    setBusy(true);
    try {
      await prepareBatch(photos, chosen.recipe, useSettings.getState().exportAs, pattern);
      void runBatch();
    } finally {
      setBusy(false);
    }
  };
  return (
    <View style={{ gap: 8, maxWidth: 560 }}>
      <Text style={{ color: c.quiet }}>{words.batch.says}</Text>
      <Acts>
        <Act main={photos.length === 0} icon="image-outline" onPress={() => void pickFiles(PICTURES, true).then(take)}>
          {words.batch.choosePhotos}
        </Act>
        {photos.length > 0 ? <Text style={{ color: c.ink, alignSelf: 'center' }}>{words.batch.photosChosen(photos.length)}</Text> : null}
      </Acts>
      <Pick
        label={words.batch.look}
        value={look}
        none={words.batch.chooseALook}
        options={looks.map(({ id, recipe }) => ({ value: id, label: recipe.name }))}
        onPick={setLook}
      />
      <FormatPanel longest={LONGEST} detail={null} />
      <TextInput
        mode="outlined"
        dense
        label={words.batch.namePattern}
        aria-label={words.batch.namePattern}
        value={pattern}
        onChangeText={setPattern}
        maxLength={120}
      />
      <Text style={{ color: c.quiet }}>{words.batch.namePatternSays}</Text>
      <Acts>
        <Act main disabled={photos.length === 0 || !chosen || busy} onPress={() => void begin().catch(complain)}>
          {words.batch.begin}
        </Act>
        {canChooseFolder() ? (
          <Act
            disabled={photos.length === 0 || !chosen || busy}
            onPress={() => void chooseFolder().then((is) => (is ? begin() : undefined), complain)}
          >
            {words.batch.intoFolder}
          </Act>
        ) : null}
      </Acts>
      {busy ? <Text style={{ color: c.quiet }}>{words.batch.copying}</Text> : null}
    </View>
  );
}

/** The job that is set up: how far it is, its results and its failures. */
function Job() {
  const c = useColours();
  const { job, running } = useBatch();
  const [zipping, setZipping] = useState(false);
  if (!job) return null;
  const [waiting, done, failed] = (['waiting', 'done', 'failed'] as const).map((state) => countOf(job, state));
  const zip = () => {
    setZipping(true);
    void saveZip()
      .catch(complain)
      .finally(() => setZipping(false));
  };
  return (
    <View style={{ gap: 10 }}>
      <Text style={{ color: c.ink, fontSize: 16 }}>{words.batch.laid(job.look.name, job.items.length)}</Text>
      <View style={{ height: 8 }}>
        <ProgressBar
          progress={(done + failed) / job.items.length}
          color={c.accent}
          aria-label={words.batch.progress}
          style={{ height: 8, borderRadius: 2 }}
        />
      </View>
      <Text role="status" style={{ color: c.ink }} testID="batch-done">
        {words.batch.done(done, job.items.length, failed)}
      </Text>
      {running === 'paused' ? <Text style={{ color: c.quiet }}>{words.batch.paused}</Text> : null}
      <Acts>
        {running === 'drawing' ? <Act onPress={pauseBatch}>{words.batch.pause}</Act> : null}
        {running !== 'drawing' && waiting > 0 ? (
          <Act main onPress={() => void runBatch()}>
            {words.batch.goOn}
          </Act>
        ) : null}
        {running ? <Act onPress={stopBatch}>{words.batch.stop}</Act> : null}
        {done > 0 && !running ? (
          <Act main={waiting === 0} icon="download" disabled={zipping} onPress={zip}>
            {words.batch.saveZip}
          </Act>
        ) : null}
        {running ? null : (
          <Act plain onPress={() => void clearBatch().catch(complain)}>
            {words.batch.clear}
          </Act>
        )}
      </Acts>
      {zipping ? <Text style={{ color: c.quiet }}>{words.batch.zipping}</Text> : null}
      {failed > 0 ? (
        <View role="alert" style={{ gap: 2 }}>
          {job.items.map((item, i) =>
            item.state === 'failed' ? (
              <Text key={i} style={{ color: c.accent }}>
                {words.batch.failed(item.name, item.says ?? '')}
              </Text>
            ) : null,
          )}
        </View>
      ) : null}
      <Results />
    </View>
  );
}
