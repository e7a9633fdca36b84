export { fitHomography, mapPoint } from './homography';
export type { Homography, Point, PointPair } from './homography';
export { registerPhotographs } from './register';
export type { Registration } from './register';
