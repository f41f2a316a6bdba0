// Down the rig by keyboard: one line is current; Enter sends, Y and N answer and go on to the next.
import { does } from '../js/keys.js';
const box = document.getElementById('lines');
let device = null;
const rows = () => [...box.querySelectorAll('tbody tr')];
const current = () => rows().find((r) => r.dataset.device === device) || rows()[0];

const mark = (row) => {
  rows().forEach((r) => r.classList.remove('here'));
  if (!row) return;
  row.classList.add('here');
  device = row.dataset.device;
  row.scrollIntoView({ block: 'nearest' });
};
const step = (by) => {
  const all = rows();
  mark(all[Math.min(all.length - 1, Math.max(0, all.indexOf(current()) + by))]);
};
const send = (row) => row.querySelector('[data-send]')?.click();
/** Answered so already, it is gone on from. */
const answer = (row, seen) => {
  if (!row.dataset.result) return;
  const button = row.querySelector(`[data-seen=${seen}]`);
  if (button) button.click();
  else step(1);
};
box.addEventListener('click', (e) => {
  const row = e.target.closest('tbody tr');
  if (row) mark(row);
});
box.addEventListener('htmx:afterSettle', (e) => {
  mark(current());
  if (e.detail.requestConfig.path.includes('/seen')) step(1);
});
const atCurrent = (act) => (e) => {
  if (e.repeat || !current()) return false;
  act(current());
  return true;
};
does({
  send: atCurrent(send),
  moved: atCurrent((row) => answer(row, 'yes')),
  still: atCurrent((row) => answer(row, 'no')),
  down: atCurrent(() => step(1)),
  up: atCurrent(() => step(-1)),
});
mark(current());
