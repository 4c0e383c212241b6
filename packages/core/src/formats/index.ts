export { stlVolume, writeStl } from './stl.ts';
