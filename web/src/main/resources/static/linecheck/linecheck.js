// Down the rig by keyboard: one line is current; Enter sends, Y and N answer and go on to the next.
import { baton } from '../js/baton.js';
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
const draw = async (path, fields) => {
  const response = await baton.post(`/shows/${baton.show}/linecheck/${path}`, fields);
  if (!response) return false;
  box.innerHTML = await response.text();
  mark(current());
  return true;
};
const send = (row) => {
  const phrase = row.querySelector('[name=phrase]');
  if (!phrase) return;
  row.querySelector('[data-send]').textContent = 'sending';
  draw(`${row.dataset.device}/send`, { phrase: phrase.value });
};
const answer = async (row, seen) => {
  if (row.dataset.result && await draw(`results/${row.dataset.result}/seen`, { answer: seen })) step(1);
};

box.addEventListener('click', (e) => {
  const row = e.target.closest('tbody tr');
  if (!row) return;
  mark(row);
  if (e.target.closest('[data-send]')) send(row);
  const seen = e.target.closest('[data-seen]');
  if (seen) answer(row, seen.dataset.seen);
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
