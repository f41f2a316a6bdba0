// Listeners: made of what came in, written, deleted; a dialog shows the blanks of the kind that is chosen.
import { baton } from '../js/baton.js';
import { does } from '../js/keys.js';
const dialog = document.getElementById('listener');
const listeners = document.getElementById('listeners');
const path = (rest) => `/shows/${baton.show}/signals${rest}`;

/** Blanks of another kind are hidden and not sent. */
function fit(form) {
  const fields = form.elements;
  form.querySelectorAll('[data-how]').forEach((e) => { e.hidden = !e.dataset.how.split(' ').includes(fields.how.value); });
  form.querySelectorAll('[data-fills]').forEach((e) => { e.hidden = e.dataset.fills !== fields.fills.value; });
  form.querySelectorAll('fieldset[data-kind]').forEach((f) => { f.disabled = f.hidden = f.dataset.kind !== fields.kind.value; });
  form.querySelectorAll('fieldset[data-does]').forEach((f) => { f.disabled = f.hidden = !f.dataset.does.split(' ').includes(fields.does.value); });
  const way = form.querySelector('fieldset[data-kind=controller] [name=way]').value;
  form.querySelectorAll('[data-from]').forEach((e) => { e.hidden = e.dataset.from !== fields.from.value; });
  const isOpen = { says: fields.says.selectedOptions[0]?.dataset.argument, written: fields.words.value.includes('?') }[fields.how.value];
  const blank = form.querySelector('[data-blank]');
  blank.hidden = !isOpen || fields.does.value !== 'relay';
  if (!isOpen) fields.fills.value = 'nothing'; else if (fields.fills.value === 'nothing') { fields.fills.value = isOpen === 'text' ? 'named' : 'scaled'; fit(form); }
  form.querySelectorAll('[data-way]').forEach((e) => { e.hidden = e.dataset.way !== way; });
}

async function open(query) {
  const response = await baton.ask(path(`/form${query}`));
  if (!response) return;
  dialog.innerHTML = await response.text();
  fit(dialog.querySelector('form'));
  dialog.showModal();
  dialog.querySelector('[name=name]').select();
}

/** What is sent has all the blanks, empty where they are not of this kind. */
function blanks(form) {
  const names = ['channel', 'low', 'high', 'soft', 'hard', 'way', 'bank', 'word', 'text', 'value', 'cue', 'offset', 'target', 'section', 'table', 'pause', 'how', 'says', 'tells', 'words', 'toChannel', 'shift', 'fills', 'place', 'comesFrom', 'comesTo', 'goesFrom', 'goesTo', 'bent', 'grid', 'smooth', 'secondChannel', 'secondNumber', 'gates', 'meeting', 'names', 'first'];
  const sent = new FormData(form);
  const ticked = Object.fromEntries(['among', 'group'].map((n) => [n, sent.getAll(n).join(',')]));
  return { second: 0, listOf: 0, ...Object.fromEntries(names.map((n) => [n, ''])), ...Object.fromEntries(sent), ...ticked };
}

async function change(rest, fields) {
  const answer = await baton.post(path(rest), fields);
  if (answer) listeners.innerHTML = await answer.text();
  return answer;
}

dialog.addEventListener('change', (e) => fit(e.target.form));
dialog.addEventListener('input', (e) => { if (e.target.name === 'words') fit(e.target.form); });
dialog.addEventListener('submit', async (e) => {
  e.preventDefault();
  if (await change('', blanks(e.target))) dialog.close();
});
listeners.addEventListener('click', (e) => {
  const id = e.target.closest('[data-listener]')?.dataset.listener;
  const arm = e.target.closest('[data-arm]');
  if (arm) baton.post(path(`/${id}/arm`), { armed: arm.dataset.arm });
  if (e.target.closest('[data-edit]')) open(`?listener=${id}`);
  if (e.target.closest('[data-delete]')) change(`/${id}/delete`);
});
const atListener = (act) => (e) => {
  if (!e.target.matches('[data-listener]')) return false;
  act(e.target.dataset.listener);
  return true;
};
does({
  listener: () => { open(''); },
  relay: () => { open('?relay=true'); },
  change: atListener((id) => open(`?listener=${id}`)),
  remove: atListener((id) => change(`/${id}/delete`)),
});
document.getElementById('came').addEventListener('click', (e) => {
  const came = e.target.closest('[data-came]')?.dataset.came;
  if (e.target.closest('[data-from-came]')) open(`?came=${came}`);
  if (e.target.closest('[data-relay-came]')) open(`?came=${came}&relay=true`);
  if (e.target.closest('[data-try-came]')) tryOut({ came });
});
document.addEventListener('step', async (e) => {
  e.preventDefault();
  const answer = await baton.post(`/shows/${baton.show}/steps/${e.detail.step}`);
  if (!answer) return;
  baton.say(await answer.text());
  const drawn = await baton.ask(path('/listeners'));
  if (drawn) listeners.innerHTML = await drawn.text();
});
// The trial: what would happen is shown first; a second key lets it happen.
const bench = document.getElementById('trial');
let tried = null;
async function tryOut(fields, send = false) {
  tried = fields;
  const answer = await baton.post(path('/trial'), { ...fields, send });
  if (answer) document.getElementById('tried').innerHTML = await answer.text();
}
bench.addEventListener('submit', (e) => {
  e.preventDefault();
  tryOut(Object.fromEntries(new FormData(bench)));
});
bench.addEventListener('keydown', (e) => {
  if (e.key === 'Enter' && e.ctrlKey && tried) { e.preventDefault(); tryOut(tried, true); }
  if (e.key === 'Escape') e.target.blur();
});
bench.addEventListener('click', (e) => { if (e.target.closest('[data-send]')) tryOut(tried, true); });
