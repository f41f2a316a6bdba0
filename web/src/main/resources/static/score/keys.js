// The keys of the Score.
import { baton } from '../js/baton.js';
import { beats, change, depts, item, load, music, notes, paper, state } from './sheet.js';
import { choose, chosen, go, leftHere, mark, notesHere, ownHere, put, seen, show, step, these } from './mark.js';
import { write, writing } from './writer.js';
import { sectionHere } from './dialogs.js';
import { nudge, pause, play, release, stopRunning } from './playing.js';

const ZOOMS = [0, 32, 16, 8, 4, 2, 1];
const IT_PLAYS = 'The music plays. Esc brings the sheet back; then keys write again.';
let copied = [];

const zoomTo = (bars) => {
  state.bars = bars;
  document.getElementById('bars').value = bars;
  history.replaceState(null, '', `?item=${item}&bars=${bars}`);
  return load().then(seen);
};
const zoom = (by) => zoomTo(ZOOMS[Math.max(0, Math.min(ZOOMS.length - 1, ZOOMS.indexOf(state.bars) + by))]);
document.getElementById('bars').addEventListener('change', (e) => { zoomTo(Number(e.target.value)); paper.focus(); });
document.getElementById('which').addEventListener('change', (e) => { location.search = `?item=${e.target.value}&bars=${state.bars}`; });

const remove = () => {
  const gone = these();
  const copy = [...notesHere(), ...leftHere()].find((n) => n.dataset.copy);
  if (gone.length) { chosen.clear(); change('delete', { cues: gone.join(',') }); } else if (copy) change('except', { letter: copy.dataset.copy, cue: copy.dataset.cue });
};
const copy = () => { copied = these(); baton.say(copied.length === 1 ? 'One cue copied.' : `${copied.length} cues copied.`); };
const duplicate = () => {
  const cues = these();
  if (!cues.length) return;
  mark.tick = Math.min(...notes().filter((n) => cues.includes(n.dataset.cue) && !n.dataset.copy).map((n) => Number(n.dataset.tick)));
  step(1, true);
  change('copy', { cues: cues.join(','), tick: mark.tick });
};
const toStaff = (staff) => put(mark.tick, Math.max(0, Math.min(depts().length - 1, staff)));
const toBeat = (beat) => { put(beat.tick, mark.staff); seen(); };

/** Those that also work while the music plays. */
const MOVING = {
  o: pause,
  p: play,
  v: release,
  ',': () => nudge(-20),
  '.': () => nudge(20),
  Escape: () => { if (state.running) stopRunning(); chosen.clear(); show(); },
};
const STANDING = {
  ArrowLeft: (e) => go(-1, e.shiftKey),
  ArrowRight: (e) => go(1, e.shiftKey),
  ArrowUp: () => toStaff(mark.staff - 1),
  ArrowDown: () => toStaff(mark.staff + 1),
  Home: () => toBeat(beats()[0]),
  End: () => toBeat(beats().at(-1)),
  Enter: () => write(ownHere()[0]),
  ' ': () => { ownHere().forEach((n) => choose(n.dataset.cue)); show(); },
  Delete: remove,
  l: sectionHere,
  b: () => document.querySelector('[data-opens="score-snippets"]').click(),
  '+': () => zoom(1),
  '=': () => zoom(1),
  '-': () => zoom(-1),
};
const WITH_CTRL = {
  c: copy,
  x: () => { copy(); remove(); },
  v: () => { if (copied.length) change('copy', { cues: copied.join(','), tick: mark.tick }); },
  d: duplicate,
  a: () => { notes().forEach((n) => chosen.add(n.dataset.cue)); show(); },
};

document.addEventListener('keydown', (e) => {
  if (baton.typing(e) || writing() || e.altKey || !music()) return;
  const key = e.key.length === 1 ? e.key.toLowerCase() : e.key;
  const ctrl = e.ctrlKey || e.metaKey;
  const moves = !ctrl && MOVING[key];
  const act = moves || (ctrl ? WITH_CTRL[key] : STANDING[key]);
  if (!act || (e.target.closest('button, a') && (key === 'Enter' || key === ' '))) return;
  e.preventDefault();
  // Nobody sees the mark while the music moves, so nothing is changed at it.
  if (state.running && !moves) baton.say(IT_PLAYS); else act(e);
});

document.addEventListener('step', (e) => {
  // Without a drawing there is nothing to keep in its place.
  if (!music()) return;
  e.preventDefault();
  if (writing()) return;
  if (state.running) baton.say(IT_PLAYS); else change(e.detail.step);
});
