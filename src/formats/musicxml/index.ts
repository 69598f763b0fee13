// MusicXML in and out.
export { readMusicXml } from './readMusicXml';
export { writeMusicXml } from './writeMusicXml';
