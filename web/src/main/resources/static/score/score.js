// The Score: sheet.js has the drawing, mark.js the mark and what is chosen, writer.js the field in which a cue is written, keys.js the
// keys, pointer.js the mouse and the finger, dialogs.js the dialogs, playing.js the music under the baton line.
import { draw, item, paper, sheet } from './sheet.js';
import './keys.js';
import './pointer.js';

if (item) {
  draw(sheet.innerHTML);
  window.dispatchEvent(new Event('resize'));
  paper.focus({ preventScroll: true });
}
