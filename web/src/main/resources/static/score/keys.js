// The keys of the Score.
import { baton } from '../js/baton.js';
import { meaning, ofButton } from '../js/keys.js';
import { beats, change, depts, item, load, music, notes, paper, state } from './sheet.js';
import { choose, chosen, go, leftHere, mark, notesHere, ownHere, put, seen, show, step, these } from './mark.js';
import { write, writing } from './writer.js';
import { sectionHere } from './dialogs.js';
import { nudge, pause, release, stopRunning } from './playing.js';

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
document.getElementById('bars').addEventListener('change', (e) => {
  zoomTo(Number(e.target.value));
  paper.focus();
});
document.getElementById('which').addEventListener('change', (e) => {
  location.search = `?item=${e.target.value}&bars=${state.bars}`;
});

const remove = () => {
  const gone = these();
  const copy = [...notesHere(), ...leftHere()].find((n) => n.dataset.copy);
  if (gone.length) {
    chosen.clear();
    change('delete', { cues: gone.join(',') });
  } else if (copy) change('except', { letter: copy.dataset.copy, cue: copy.dataset.cue });
};
const copy = () => {
  copied = these();
  baton.say(copied.length === 1 ? 'One cue copied.' : `${copied.length} cues copied.`);
};
const duplicate = () => {
  const cues = these();
  if (!cues.length) return;
  mark.tick = Math.min(
    ...notes()
      .filter((n) => cues.includes(n.dataset.cue) && !n.dataset.copy)
      .map((n) => Number(n.dataset.tick)),
  );
  step(1, true);
  change('copy', { cues: cues.join(','), tick: mark.tick });
};
const toStaff = (staff) => put(mark.tick, Math.max(0, Math.min(depts().length - 1, staff)));
const toBeat = (beat) => {
  put(beat.tick, mark.staff);
  seen();
};

/** Those that also work while the music plays. */
const MOVING = {
  pause,
  release,
  sooner: () => nudge(-20),
  later: () => nudge(20),
  none: () => {
    if (state.running) stopRunning();
    chosen.clear();
    show();
  },
};
const STANDING = {
  left: () => go(-1, false),
  right: () => go(1, false),
  barLeft: () => go(-1, true),
  barRight: () => go(1, true),
  up: () => toStaff(mark.staff - 1),
  down: () => toStaff(mark.staff + 1),
  first: () => toBeat(beats()[0]),
  last: () => toBeat(beats().at(-1)),
  write: () => write(ownHere()[0]),
  choose: () => {
    ownHere().forEach((n) => choose(n.dataset.cue));
    show();
  },
  remove,
  section: sectionHere,
  snippets: () => document.querySelector('[commandfor="score-snippets"]').click(),
  closer: () => zoom(1),
  farther: () => zoom(-1),
  copy,
  cut: () => {
    copy();
    remove();
  },
  paste: () => {
    if (copied.length) change('copy', { cues: copied.join(','), tick: mark.tick });
  },
  duplicate,
  all: () => {
    notes().forEach((n) => chosen.add(n.dataset.cue));
    show();
  },
};

document.addEventListener('keydown', (e) => {
  if (e.defaultPrevented || baton.typing(e) || writing() || !music()) return;
  const moves = MOVING[meaning(e)];
  const act = moves || STANDING[meaning(e)];
  if (!act || ofButton(e)) return;
  e.preventDefault();
  // Nobody sees the mark while the music moves, so nothing is changed at it.
  if (state.running && !moves) baton.say(IT_PLAYS);
  else act();
});

document.addEventListener('step', (e) => {
  // Without a drawing there is nothing to keep in its place.
  if (!music()) return;
  e.preventDefault();
  if (writing()) return;
  if (state.running) baton.say(IT_PLAYS);
  else change(e.detail.step);
});
