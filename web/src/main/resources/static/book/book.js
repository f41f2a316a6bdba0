// The Book: what it does when it was written, here or by somebody else. Its parts: sheet.js has the cues and the drawn leaves,
// choice.js the chosen cell, cell.js the editor in it, clipboard.js copy and paste, keys.js the keys, lists.js the dialogs.
import { baton } from '../js/baton.js';
import { about, cellAt, cue, path, refresh, revision } from './sheet.js';
import { showFolded } from './columns.js';
import { at, choose, chooseAgain, goTo } from './choice.js';
import { change, later, writing } from './writing.js';
import { editing, giveUp, standsIn } from './cell.js';
import './keys.js';

let newest = 0; // the latest revision that was announced

// ---- keeping up to date

const settled = () => {
  const { count, done, added } = about();
  showFolded();
  document.getElementById('count').textContent = count || '';
  const left = document.getElementById('left');
  if (left) baton.left(left);
  else if (done) baton.say(done);
  if (added) choose(cellAt({ cue: added, column: 'what' }));
  else if (!editing() && at()) chooseAgain();
  catchUp();
};

// Somebody else wrote: never under an open editor, and not before an own change is kept.
const free = () => !editing() && !writing();
const catchUp = async () => {
  if (newest > revision() && free() && (await refresh(free))) settled();
};
document.addEventListener('live', (e) => {
  if (e.detail.topic !== 'book') return;
  newest = Number(e.detail.data);
  catchUp();
});
document.addEventListener('written', settled);
document.addEventListener('left', catchUp);

// ---- two writers at one cue

document.getElementById('notice').addEventListener('click', (e) => {
  const told = e.target.closest('[data-mine]');
  if (!told || !e.target.closest('button')) return;
  const { cue: id, column, version, mine } = told.dataset;
  // Words that were added while the question stood open count too.
  const text = standsIn({ cue: id, column }) ?? mine;
  giveUp();
  baton.clear();
  if (e.target.closest('[data-mine-wins]')) change(`cues/${id}/cell`, { column, text, version });
  else catchUp();
});

// ---- find, undo

document.getElementById('find').addEventListener('keydown', async (e) => {
  const field = e.target;
  if (e.key === 'Escape') {
    field.value = '';
    field.blur();
  }
  const words = field.value.trim();
  if (e.key !== 'Enter' || !words) return;
  const response = await baton.ask(path(`find?${new URLSearchParams({ words, after: at()?.cue || 0 })}`));
  if (!response) return;
  const id = await response.text();
  if (cue(id)) goTo({ cue: id, column: at()?.column || 'what' });
  else baton.say(`Nothing in the book says “${words}”.`);
});
document.addEventListener('step', (e) => {
  e.preventDefault();
  later(() => change(e.detail.step));
});

settled();
