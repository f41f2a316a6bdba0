// The pointer on the sheet: a click on a line writes there, a note is dragged to another beat.
import { beatAt, change, depts, music, nearest, paper, sheet, state } from './sheet.js';
import { chosen, mark, ownHere, put } from './mark.js';
import { write, writing } from './writer.js';
import { section } from './dialogs.js';

let drag = null;
const stand = (note) => put(Number(note.dataset.tick), depts().indexOf(note.dataset.dept));

sheet.addEventListener('pointerdown', (e) => {
  if (state.running || writing() || !music()) return;
  const letter = e.target.closest('.letter');
  const note = e.target.closest('.note:not(.copy)');
  const copy = e.target.closest('.note.copy, .left-out');
  const at = nearest(e);
  if (letter) section(letter.dataset.bar);
  else if (copy) {
    chosen.clear();
    stand(copy);
  } else if (note) {
    if (!e.shiftKey && !chosen.has(note.dataset.cue)) chosen.clear();
    chosen.add(note.dataset.cue);
    stand(note);
    drag = { from: mark.tick, to: mark.tick };
  } else if (at) {
    chosen.clear();
    put(at.tick, at.staff);
    e.preventDefault();
    paper.focus({ preventScroll: true });
    write(ownHere()[0]);
  }
});
sheet.addEventListener('pointermove', (e) => {
  const at = drag && nearest(e);
  if (at && at.tick !== drag.to) {
    drag.to = at.tick;
    put(at.tick, mark.staff);
  }
});
document.addEventListener('pointerup', () => {
  if (!drag) return;
  const by = beatAt(drag.to).at - (beatAt(drag.from)?.at ?? beatAt(drag.to).at);
  drag = null;
  if (by) change('move', { cues: [...chosen].join(','), byBeats: by });
});
sheet.addEventListener('dblclick', (e) => {
  const note = e.target.closest('.note');
  if (note && !note.dataset.copy) write(note);
});

// What was written down while it ran: taken, or not.
sheet.addEventListener('click', (e) => {
  const button = e.target.closest('[data-take-down], [data-forget-down]');
  if (!button) return;
  const one = button.dataset.takeDown || button.dataset.forgetDown;
  const cues =
    one === 'all' ? [...sheet.querySelectorAll('.one [data-take-down]')].map((b) => b.dataset.takeDown).join() : one;
  change(button.dataset.takeDown ? 'take-down' : 'forget-down', { cues });
});
