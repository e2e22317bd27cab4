/** What the tests use of OpenCV 4.3 as built for WebAssembly (opencv-wasm): an independent implementation to compare with. */
export interface Mat {
  data: Uint8Array;
  data32F: Float32Array;
  data64F: Float64Array;
  delete(): void;
}

interface OpenCv {
  Mat: new () => Mat;
  matFromArray(rows: number, columns: number, type: number, values: ArrayLike<number>): Mat;
  Size: new (width: number, height: number) => object;
  Point: new (x: number, y: number) => object;
  CV_8UC1: number;
  CV_8UC3: number;
  CV_8UC4: number;
  CV_32F: number;
  CV_32FC1: number;
  CV_32FC2: number;
  CV_64FC1: number;
  INTER_CUBIC: number;
  INTER_LINEAR: number;
  BORDER_REPLICATE: number;
  undistort(from: Mat, to: Mat, camera: Mat, distortion: Mat, after?: Mat): void;
  getPerspectiveTransform(from: Mat, to: Mat): Mat;
  perspectiveTransform(from: Mat, to: Mat, matrix: Mat): void;
  warpPerspective(from: Mat, to: Mat, matrix: Mat, size: object, flags: number, border: number): void;
  bilateralFilter(from: Mat, to: Mat, diameter: number, colour: number, space: number, border: number): void;
  boxFilter(from: Mat, to: Mat, depth: number, size: object, anchor: object, normalise: boolean, border: number): void;
  GaussianBlur(from: Mat, to: Mat, size: object, sigmaX: number, sigmaY: number, border: number): void;
  Sobel(from: Mat, to: Mat, depth: number, dx: number, dy: number, size: number, scale: number, delta: number, border: number): void;
  dilate(from: Mat, to: Mat, shape: Mat): void;
  erode(from: Mat, to: Mat, shape: Mat): void;
  distanceTransform(from: Mat, to: Mat, type: number, mask: number): void;
}

export const openCv = (jest.requireActual('opencv-wasm') as { cv: OpenCv }).cv;
