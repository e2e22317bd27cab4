import { loadGraphModel, type GraphModel } from '@tensorflow/tfjs-converter';
import * as tf from '@tensorflow/tfjs-core';
import { setWasmPaths } from '@tensorflow/tfjs-backend-wasm';
import type { AttentionOutput } from './attention';

/** Files of one model: its graph and its weights. */
export interface ModelFiles {
  graph: object;
  weights: ArrayBuffer;
}
export type ModelName = 'blazeface' | 'facemesh' | 'attention' | 'selfie';
export const modelNames: readonly ModelName[] = ['blazeface', 'facemesh', 'attention', 'selfie'];

/** What the models make of square pictures of their own sides, planar tiles read as RGB 0..1, interleaved. */
export interface Models {
  /** Raw boxes: per anchor a score (before the logistic) and 16 numbers: centre, size, six points, in input pixels from the anchor. */
  boxes(rgb: Float32Array): Promise<{ scores: Float32Array; boxes: Float32Array }>;
  /** 468 points of three numbers in input pixels, and how sure it is that a face is there, 0..1. */
  mesh(rgb: Float32Array): Promise<{ points: Float32Array; score: number }>;
  /** The same, with lips, eyes and irises seen more closely; it takes four times as long. */
  fine(rgb: Float32Array): Promise<AttentionOutput & { score: number }>;
  /** 256 × 256 values 0..1. */
  person(rgb: Float32Array): Promise<Float32Array>;
}

export const SIDES: Record<ModelName, number> = { blazeface: 256, facemesh: 192, attention: 192, selfie: 256 };

/** A model that cannot be used: one sentence for a person. */
const broken = () =>
  new Error('The models that find faces and people are missing or damaged here; everything else works, and regions can be painted by hand.');

interface Graph {
  weightsManifest: { weights: object[] }[];
  modelTopology: object;
}

function load({ graph, weights }: ModelFiles): Promise<GraphModel> {
  const { weightsManifest, ...rest } = graph as Graph;
  const specs = weightsManifest.flatMap((group) => group.weights);
  return loadGraphModel({ load: async () => ({ ...rest, weightSpecs: specs, weightData: weights }) as never });
}

/**
 * Prepares the models on TensorFlow.js with its WebAssembly backend. `wasm` names the backend's own files.
 * Models: blazeface, facemesh and the attention mesh (Bazarevsky et al. 2019; Kartynnik et al. 2019; Grishchenko et al. 2020) and the selfie
 * segmenter, all MediaPipe's, Apache-2.0.
 * @throws Error with one sentence when a file is missing or damaged.
 */
export async function loadModels(files: (name: ModelName) => Promise<ModelFiles>, wasm: string): Promise<Models> {
  try {
    // The variant with threads would start workers from addresses that the page's policy forbids.
    tf.env().set('WASM_HAS_MULTITHREAD_SUPPORT', false);
    setWasmPaths(wasm);
    const [, ...all] = await Promise.all([tf.setBackend('wasm'), ...modelNames.map(files)]);
    if (tf.getBackend() !== 'wasm') throw broken();
    const [blazeface, facemesh, attention, selfie] = await Promise.all(all.map(load));
    const run = async (model: GraphModel, name: ModelName, rgb: Float32Array, from: number, by: number): Promise<Float32Array[]> => {
      const side = SIDES[name];
      const input = tf.tidy(() => tf.add(tf.mul(tf.tensor4d(rgb, [1, side, side, 3]), by), from));
      const output = model.execute(input, outputsOf[name]) as tf.Tensor | tf.Tensor[];
      const list = Array.isArray(output) ? output : [output];
      try {
        return await Promise.all(list.map((t) => t.data() as Promise<Float32Array>));
      } finally {
        tf.dispose([input, ...list]);
      }
    };
    return {
      async boxes(rgb) {
        const [scoresFine, boxesFine, scoresCoarse, boxesCoarse] = await run(blazeface, 'blazeface', rgb, -1, 2);
        return { scores: joined(scoresFine, scoresCoarse), boxes: joined(boxesFine, boxesCoarse) };
      },
      async mesh(rgb) {
        const [points, flag] = await run(facemesh, 'facemesh', rgb, 0, 1);
        return { points, score: flag[0] };
      },
      async fine(rgb) {
        const [mesh, lips, rightEye, leftEye, rightIris, leftIris, flag] = await run(attention, 'attention', rgb, 0, 1);
        const [eyes, irises] = [
          { right: rightEye, left: leftEye },
          { right: rightIris, left: leftIris },
        ];
        return { mesh, lips, eyes, irises, score: 1 / (1 + Math.exp(-flag[0])) };
      },
      async person(rgb) {
        const [map] = await run(selfie, 'selfie', rgb, 0, 1);
        return map;
      },
    };
  } catch {
    throw broken();
  }
}

const outputsOf: Record<ModelName, string[]> = {
  blazeface: ['Identity:0', 'Identity_2:0', 'Identity_1:0', 'Identity_3:0'],
  facemesh: ['Identity_2:0', 'Identity_1:0'],
  attention: [
    'output_mesh_identity:0',
    'output_lips:0',
    // As the picture shows them: the person's right eye is on its left.
    'output_left_eye:0',
    'output_right_eye:0',
    'output_left_iris:0',
    'output_right_iris:0',
    'conv_faceflag:0',
  ],
  selfie: ['activation_10:0'],
};

function joined(a: Float32Array, b: Float32Array): Float32Array {
  const out = new Float32Array(a.length + b.length);
  out.set(a);
  out.set(b, a.length);
  return out;
}
