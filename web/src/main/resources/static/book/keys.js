// The keys of the Book, and the mouse in its cells.
import { baton } from '../js/baton.js';
import { book, path, placeOf, words } from './sheet.js';
import {
  at,
  block,
  choose,
  chosenCell,
  chosenCue,
  several,
  single,
  step,
  stepOn,
  stretch,
  stretchTo,
} from './choice.js';
import { busy, change, later } from './writing.js';
import { clearBlock, fillDown, removeCues } from './clipboard.js';
import { accept, edit, editing, editorHas, editorKey, pressed, write } from './cell.js';
import { openRemarks } from './lists.js';
import { meaning } from '../js/keys.js';

// Chosen when the button goes down, so that no drawing between down and up can lose the click.
book.addEventListener('mousedown', (e) => {
  pressed(null);
  const cell = e.button === 0 && e.target.closest('tr.cue [data-column]');
  if (!cell || (editing() && cell.matches('.editing'))) return;
  if (e.shiftKey && at()) {
    e.preventDefault();
    stretchTo(placeOf(cell));
    return;
  }
  if (chosenCell() === cell && cell.classList.contains('sel')) pressed(cell);
  choose(cell);
});

const fire = () => {
  if (!/^\d+$/.test(at().column)) return;
  baton.post(path(`cues/${at().cue}/fire`), { device: at().column }).then((ok) => ok && baton.say('Fired.'));
};
const clear = () => {
  if (several()) clearBlock();
  else if (at().column !== 'number') write(at(), '', words(chosenCell()));
};
const moveCue = (by) => change(`cues/${at().cue}/move`, { step: by });
// Out tonight, or in again: a thing of the running show and not an edit of the book.
const takeOut = () =>
  block().cues.forEach((c) => baton.post(`/shows/${baton.show}/desk/tonight`, { kind: 'CUE', id: c.id }));
// Below the chosen one; where none is chosen, at the end of the book, from the field of a new item too.
const addCue = () => {
  const cue = chosenCue();
  const item = cue ? cue.item : [...book.querySelectorAll('tbody[data-item]')].at(-1)?.dataset.item;
  if (item) change('cues', cue ? { item, after: at().cue } : { item });
  else baton.say('A cue stands in an item: name the first one below.');
};

const ANYWHERE = {
  // What is drawn is not the whole book.
  paper: () => window.open(path('paper')),
  addCue,
};
const ON_A_CUE = {
  duplicate: () => change(`cues/${at().cue}/copy`),
  remove: () => removeCues(),
  fillDown,
  remarks: () => openRemarks(),
  tonight: takeOut,
  earlier: () => moveCue(-1),
  later: () => moveCue(1),
};
const MOVES = { ArrowDown: [1, 0], ArrowUp: [-1, 0], ArrowRight: [0, 1], ArrowLeft: [0, -1] };
const IN_A_CELL = {
  fire,
  edit: () => edit(),
  clear,
};

/** From cell to cell, and over the end of a row into the next; behind the last one, and after Escape, the page's own way goes on. */
const tab = (e) => {
  const cell = e.target.closest?.('tr.cue [data-column]');
  if (!cell && !e.late) return;
  if (stepOn(e.shiftKey ? -1 : 1)) e.preventDefault();
};

/** Out of a block, then out of the table. */
const escape = (e) => {
  if (several()) single();
  else e.target.closest?.('tr.cue [data-column]')?.blur();
};

const NOTHING_CHOSEN = 'Nothing is chosen, so nothing was written: click a cell, or press an arrow key.';

const cellKey = (e, action) => {
  const letter = e.key.length === 1;
  if (!chosenCue()) {
    if (letter && (!action || IN_A_CELL[action] || ON_A_CUE[action])) baton.say(NOTHING_CHOSEN);
  } else if (IN_A_CELL[action]) {
    e.preventDefault();
    IN_A_CELL[action]();
  } else if (letter) {
    e.preventDefault();
    edit(e.key);
  }
};

const bookKey = (e) => {
  const action = meaning(e);
  const act = ANYWHERE[action] || (chosenCue() && ON_A_CUE[action]);
  if (act) {
    e.preventDefault();
    act();
    return;
  }
  if (e.ctrlKey || e.metaKey || e.altKey) return;
  const outside = !e.target.closest('#book') && e.target !== document.body;
  if (outside || e.target.closest('button, summary, a')) return;
  if (e.key === 'Tab') tab(e);
  else if (MOVES[e.key]) {
    e.preventDefault();
    if (e.shiftKey && chosenCue()) stretch(...MOVES[e.key]);
    else step(...MOVES[e.key]);
  } else if (e.key === 'Escape') escape(e);
  else cellKey(e, action);
};

const take = (e) => {
  if (!editing()) bookKey(e);
  else if (meaning(e) === 'addCue') {
    e.preventDefault();
    // What cannot be kept stays open, and no cue is added.
    if (accept(0, 0)) later(() => editing() || addCue());
  } else editorKey(e);
};

document.addEventListener('keydown', (e) => {
  const inEditor = editorHas(e.target);
  if (e.defaultPrevented && !inEditor) return;
  // Another cell may already be chosen while what stands in the editor is still being kept: its keys wait too.
  const types = baton.typing(e) && meaning(e) !== 'addCue';
  if (!inEditor && (types || (editing() && !busy()))) return;
  // The browser tells of these as copying and pasting.
  if ((e.ctrlKey || e.metaKey) && 'cxv'.includes(e.key.toLowerCase()) && (!inEditor || busy())) return;
  if (!busy()) {
    take(e);
    return;
  }
  e.preventDefault();
  const { key, ctrlKey, metaKey, shiftKey, altKey } = e;
  later(() =>
    take({
      key,
      ctrlKey,
      metaKey,
      shiftKey,
      altKey,
      late: true,
      target: book,
      preventDefault() {},
      stopPropagation() {},
    }),
  );
});
