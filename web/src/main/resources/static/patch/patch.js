// Patch sets: looked at, edited, kept and loaded. Looking is only ever a GET.
import { baton } from '../js/baton.js';
import { morph } from '../js/morph.js';
import { does } from '../js/keys.js';
import { following } from './following.js';

const place = document.getElementById('patch');
const lineDialog = document.getElementById('line');
const nameDialog = document.getElementById('name');
const ASK_MS = 3000;

const body = () => place.querySelector('.patch');
const chosen = () => body().dataset.chosen;
const path = (what) => `/shows/${baton.show}/patch${what}`;
const ofSet = (what) => path(`/${chosen()}${what}`);
const { follow } = following(place);

// ---- drawing: what has focus keeps it

function draw(html) {
  const focused = document.activeElement?.id;
  morph(body(), html, 'outerHTML');
  if (focused && document.activeElement.id !== focused) document.getElementById(focused)?.focus();
  follow();
  history.replaceState(null, '', path(chosen() ? `?set=${chosen()}` : ''));
}

// Of two answers the one to the later question counts; while something is being changed, nobody looks anew.
let asked = 0;
let changing = 0;

async function look(set) {
  const mine = ++asked;
  const response = await baton.ask(path(`/body?set=${set}`));
  const html = response && (await response.text());
  if (mine === asked && html !== null) draw(html);
}

/** Answers whether it was done. */
async function change(where, fields = {}) {
  const mine = ++asked;
  changing += 1;
  const answer = await baton.post(where, fields);
  const html = answer && answer.status !== 204 ? await answer.text() : null;
  changing -= 1;
  if (html !== null && mine === asked) draw(html);
  if (!changing && stale) { stale = false; look(chosen() || 0); }
  return answer !== null;
}

let stale = false;
document.addEventListener('live', (e) => {
  if (e.detail.topic !== 'patch') return;
  if (changing) stale = true; else if (!document.getElementById('gone')) look(chosen() || 0);
});

// ---- loading: a second, deliberate act

let asking = 0;
function load(byKey) {
  const button = document.getElementById('load');
  if (!button) return;
  if (byKey && Date.now() > asking) {
    asking = Date.now() + ASK_MS;
    button.classList.add('asks');
    button.textContent = `L again: load ${body().dataset.name}`;
    setTimeout(rest, ASK_MS);
    return;
  }
  rest(true);
  change(ofSet('/load'));
}
function rest(now) {
  const button = document.getElementById('load');
  if (now === true) asking = 0;
  if (!button || Date.now() < asking) return;
  button.classList.remove('asks');
  button.innerHTML = `<span></span> <key-of act="load"></key-of> <key-of act="load"></key-of>`;
  button.firstChild.textContent = button.dataset.says;
}

// ---- names and lines

let named = () => {};
function askName(value, more, then) {
  const { elements } = nameDialog.querySelector('form');
  elements.name.value = value;
  nameDialog.querySelector('[data-more]').hidden = !more;
  if (more) { elements.number.value = body().dataset.number; elements.guarded.checked = body().dataset.guarded === 'true'; }
  named = then;
  nameDialog.showModal();
  elements.name.select();
}
nameDialog.addEventListener('submit', async (e) => {
  const fields = Object.fromEntries(new FormData(e.target));
  if (await named(fields)) nameDialog.close();
});

async function openLine(row) {
  const response = await baton.ask(ofSet(`/line?place=${row}`));
  if (!response) return;
  lineDialog.innerHTML = await response.text();
  lineDialog.showModal();
  lineDialog.querySelector('select').focus();
}
lineDialog.addEventListener('submit', async (e) => {
  const form = new FormData(e.target);
  if (await change(ofSet('/line'), { ...Object.fromEntries(form), kinds: form.getAll('kinds').join(',') })) lineDialog.close();
});

// ---- what keys and buttons do

const row = () => document.activeElement?.closest?.('#lines tr[data-place]');
// What is done to a set needs one to be chosen.
const ofChosen = (act) => () => {
  if (!chosen()) return false;
  act();
  return true;
};
/** Of a line: that of the button that was pressed, or the one that has focus. */
const ofLine = (act) => (e) => {
  const at = e.target.closest('#lines tr[data-place]');
  if (!at || (e.type === 'keydown' && at !== e.target)) return false;
  act(at);
  return true;
};
/** To the set or the line above or below. */
const beside = (by) => () => {
  const focused = document.activeElement;
  const list = [...document.querySelectorAll(focused.closest('#sets') ? '#sets a' : '#lines tr[data-place]')];
  if (!list.includes(focused)) return false;
  const next = list[list.indexOf(focused) + by];
  next?.focus();
  if (next?.dataset.set) look(next.dataset.set);
  return true;
};

does({
  newSet: () => askName('', false, (f) => change(path(''), { name: f.name })),
  load: (e) => chosen() !== '' && load(e.type === 'keydown'),
  keep: ofChosen(() => change(ofSet('/keep'))),
  keepAs: ofChosen(() => askName(`${body().dataset.name} 2`, false, (f) => change(ofSet('/keep-as'), { name: f.name }))),
  putBack: ofChosen(() => change(ofSet('/put-back'))),
  rename: ofChosen(() => askName(body().dataset.name, true, (f) => change(ofSet('/rename'), f))),
  duplicate: ofChosen(() => change(ofSet('/duplicate'))),
  deleteSet: ofChosen(() => change(ofSet('/delete'))),
  addLine: ofChosen(() => openLine(-1)),
  changeLine: ofLine((at) => openLine(at.dataset.place)),
  deleteLine: ofLine((at) => change(ofSet(`/line/${at.dataset.place}/delete`))),
  hush: () => { change(path('/hush')).then((done) => done && baton.say('All notes off was sent to every output.')); },
  up: beside(-1),
  down: beside(1),
});

document.addEventListener('step', async (e) => {
  e.preventDefault();
  if (await change(path(`/${e.detail.step}`), { set: chosen() || 0 })) baton.say(body().dataset.done);
});
document.addEventListener('click', (e) => {
  const set = e.target.closest('[data-set]');
  if (set && !e.ctrlKey && !e.metaKey) { e.preventDefault(); look(set.dataset.set); }
});
place.addEventListener('change', (e) => {
  if (e.target.matches('[data-local]')) change(ofSet('/local'), { machine: e.target.dataset.local, off: e.target.checked });
});

document.addEventListener('copy', (e) => {
  if (!row()) return;
  e.preventDefault();
  e.clipboardData.setData('text/plain', row().dataset.copy);
  baton.say('The line is copied.');
});
document.addEventListener('paste', (e) => {
  if (baton.typing(e) || !chosen()) return;
  e.preventDefault();
  change(ofSet('/paste'), { line: e.clipboardData.getData('text/plain') });
});

rest();
follow();
new MutationObserver(() => { if (!document.querySelector('#load key-of') && Date.now() > asking) rest(); }).observe(place, { childList: true, subtree: true });
