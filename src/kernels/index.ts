export { blend } from './blend';
export { sampleAffine, sampleArea, halve, packBytes, pack16, unpack16, colorMatrix, copyWindow, tintByMask } from './tile';
export { maskEllipse, stampDabs, applyStroke, maskLimits } from './mask';
export { addNoise, addSpline, worley, addWhite, enlarge, noiseAt } from './noise';
export { fill, mixIn, times, lerpTo, clampTo, extreme, power, exponential, logarithm, absolute, smoothstep, convolveRows, convolveColumns, shrink, moments, light, castShadow, develop } from './field';
export { drawStrokes, drawSpots, distance } from './draw';
export { threadTables, weave } from './cloth';
export { bricks, lookUp } from './masonry';
export { timber } from './timber';
