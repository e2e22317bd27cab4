import { router } from 'expo-router';
import { useEffect, useMemo } from 'react';
import { View } from 'react-native';
import { coatName } from '@/core/piece/naming';
import { stagesOf, type Stage } from '@/core/render/stages';
import { useBench } from '@/store/bench';
import { complain } from '@/store/notices';
import { useOwn } from '@/store/own';
import { useProofs } from '@/store/proofs';
import { openPiece } from '@/store/session';
import { Act } from '../kit/Act';
import { Choice } from '../kit/Choice';
import { Page } from '../kit/Page';
import { words } from '../words';
import { FEWEST, MOST, shownOf, useCompare, useCompareView } from './compareStore';
import { Panes, type NamedStage } from './Panes';
import { Proofs } from './Proofs';

const labels: Record<string, string> = {
  taken: words.compare.taken,
  readied: words.compare.readied,
  now: words.compare.now,
  texture: words.compare.texture,
};

/** Every state that can be looked at: the stages of the work, then the proofs that were kept. */
function useStages(id: string): NamedStage[] {
  const piece = useBench((s) => s.piece);
  const names = useOwn((s) => s.names);
  const proofs = useProofs((s) => s.list);
  return useMemo(() => {
    if (piece?.id !== id) return [];
    const nameOf = ({ id: stage, coat }: Stage) => (coat ? words.compare.upTo(coatName(coat, names)) : labels[stage]);
    const kept = proofs.map((proof) => ({ id: `proof:${proof.id}`, name: proof.name, piece: proof.piece, view: { kind: 'piece' } as const }));
    return [...stagesOf(piece).map((stage) => ({ ...stage, name: nameOf(stage) })), ...kept];
  }, [piece, id, names, proofs]);
}

/** States of one piece compared: side by side, wiped, or as what is different. */
export function CompareScreen({ id }: { id: string }) {
  const { way, shown: chosen, gain, set } = useCompare();
  const name = useBench((s) => s.piece?.name ?? '');
  const stages = useStages(id);
  useEffect(() => {
    if (useBench.getState().piece?.id !== id) void openPiece(id).catch(complain);
    void useProofs.getState().refresh(id).catch(complain);
    void useOwn.getState().refresh().catch(complain);
  }, [id]);
  const ids = stages.map((stage) => stage.id);
  const shown = stages.length === 0 ? [] : shownOf(chosen, ids, way);
  const panes = shown.flatMap((one) => stages.find((stage) => stage.id === one) ?? []);
  const back = { label: words.export.backToTheBench, go: () => router.dismissTo(`/piece/${id}`) };
  const next = ids.find((one) => !shown.includes(one));
  const pick = (i: number, stage: string) => set({ shown: shown.map((one, k) => (k === i ? stage : one)) });
  const fitted = useCompareView((s) => s.zoom === null);
  const { fit, actual } = useCompareView.getState();
  return (
    <Page
      title={words.compare.titleOf(name)}
      back={back}
      aside={
        <Act plain onPress={() => (fitted ? actual() : fit())}>
          {fitted ? words.compare.actual : words.compare.fit}
        </Act>
      }
      fills
    >
      {panes.length > 0 ? <Panes stages={panes} offered={stages} way={way} gain={Number(gain)} onPick={pick} /> : <View style={{ flex: 1 }} />}
      <div className="dx-compare-controls">
        <View style={row}>
          <Choice
            bare
            label={words.compare.way}
            value={way}
            options={
              [
                { value: 'side', label: words.compare.sideBySide },
                { value: 'wipe', label: words.compare.wipe },
                { value: 'difference', label: words.compare.difference },
              ] as const
            }
            onChange={(v) => set({ way: v, shown })}
          />
          {way === 'difference' ? (
            <Choice
              bare
              label={words.compare.amplified}
              value={gain}
              options={(['1', '4', '16'] as const).map((value) => ({ value, label: words.compare.times(Number(value)) }))}
              onChange={(v) => set({ gain: v })}
            />
          ) : null}
          {way === 'side' && shown.length < MOST && next ? (
            <Act onPress={() => set({ shown: [...shown, next] })}>{words.compare.addAPicture}</Act>
          ) : null}
          {way === 'side' && shown.length > FEWEST ? (
            <Act plain onPress={() => set({ shown: shown.slice(0, -1) })}>
              {words.compare.removeAPicture}
            </Act>
          ) : null}
        </View>
        <Proofs />
      </div>
    </Page>
  );
}

const row = { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 6 } as const;
