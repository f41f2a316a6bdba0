// The editor in a cell, with the phrases that may stand there.
import { baton } from '../js/baton.js';
import { book, cellAt, cue, placeOf, words } from './sheet.js';
import { at, choose, chosenCell, showStrip, step, stepOn } from './choice.js';
import { change, writing } from './writing.js';
import { begun, PhraseBox, phrasesOf } from '../js/phrases.js';

const strip = document.getElementById('strip');
let editor = null; // { cell, input, box, at }

const here = () => editor !== null && document.contains(editor.input);
/** Whether a cell is being written, and whether a key goes there. */
export const editing = () => here();
export const editorHas = (target) => here() && editor.input === target;
export const giveUp = () => {
  editor = null;
};
/** What stands in the editor of that cell by now; nothing where it is not open. */
export const standsIn = ({ cue: id, column }) =>
  here() && editor.at.cue === id && editor.at.column === column ? editor.input.value : undefined;

/**
 * @param {string} [was] what the cell said when it was opened
 * @param {boolean} exact whether an unfinished name is refused: whoever only clicked elsewhere has not chosen a phrase
 * @param version of the cue when the cell was opened: what was drawn since, nobody has seen who was writing
 */
export const write = (to, text, was, exact = false, version = cue(to.cue).version) =>
  change(`cues/${to.cue}/cell`, { column: to.column, text, version, was, exact });

export const edit = (start) => {
  const cell = chosenCell();
  if (!cell || here()) return;
  const input = Object.assign(document.createElement('input'), {
    name: 'cell',
    autocomplete: 'off',
    value: start ?? words(cell),
  });
  input.setAttribute('aria-label', 'Write into the cell');
  cell.classList.add('editing');
  cell.append(input);
  const box = cell.matches('.c')
    ? new PhraseBox(input, cell, {
        chosen: showStrip,
        taken: (phrase) => {
          if (!pickOpen(phrase)) {
            pick(phrase.name);
            keep(0, 0);
          }
        },
      })
    : null;
  const opened = placeOf(cell);
  editor = { cell, input, box, was: words(cell), at: opened, version: cue(opened.cue).version };
  if (start === undefined && cell.matches('.c')) offer(true);
  if (start !== undefined) offer(false);
  input.addEventListener('input', () => offer(false));
  // Before the list takes the key for a letter and forgets what was chosen in it.
  input.addEventListener(
    'keydown',
    (e) => {
      if (e.key !== '+' || !picked()) return;
      e.preventDefault();
      e.stopImmediatePropagation();
      pick(picked().name);
      input.value += ' + ';
      offer(false);
    },
    { capture: true },
  );
  input.addEventListener('blur', () => {
    if (!writing() && editorHas(input) && !input.classList.contains('is-invalid')) keep(0, 0, true);
  });
  input.focus();
  if (start === undefined) input.select();
};

// ---- phrases to pick

const closeList = () => editor.box?.close();
const lastPart = () => editor.input.value.split(' + ').at(-1);

// The phrases of the machine that fit what stands after the last plus sign.
const offer = (all) => {
  const { cell, box } = editor;
  if (!box) return;
  const phrases = phrasesOf((m) => m.device === cell.dataset.column);
  const named = !all && begun(phrases, lastPart());
  if (named) {
    box.ask(named);
    place();
    return;
  }
  box.offer(
    phrases,
    all ? '' : lastPart().trim().toLowerCase(),
    phrases.length ? 'no such phrase' : 'its phrasebook is empty; fill it on the page Rig',
  );
  place();
};

/** Above the cell where there is no room below it. */
const place = () => {
  const { list } = editor.box;
  list.style.cssText = '';
  if (list.getBoundingClientRect().bottom > strip.getBoundingClientRect().top) {
    list.style.top = 'auto';
    list.style.bottom = '100%';
  }
};

const picked = () => editor.box?.picked;
const pick = (name) => {
  editor.input.value = [...editor.input.value.split(' + ').slice(0, -1), name].join(' + ');
};
/** A phrase that takes an amount is not done when it is picked: the amount is typed behind the arrow. */
const pickOpen = (phrase) => {
  if (!phrase?.takes) return false;
  pick(`${phrase.name} → `);
  editor.box.ask(phrase);
  place();
  editor.input.focus();
  return true;
};

// ---- leaving and keeping

const close = () => {
  const { cell, input } = editor;
  closeList();
  editor = null;
  input.remove();
  cell.classList.remove('editing');
};
const leave = () => {
  close();
  document.dispatchEvent(new CustomEvent('left'));
};

const go = (down, right) => {
  if (right) stepOn(right);
  else step(down, 0);
};

// What was typed stays in the editor until the book has taken it.
const keep = async (down, right, exact = false) => {
  const { cell, input, was, version, at: kept } = editor;
  if (input.value.trim() === words(cell)) {
    leave();
    go(down, right);
    return;
  }
  const taken = await write(kept, input.value, was, exact, version);
  if (!taken) {
    if (editorHas(input)) {
      input.classList.add('is-invalid');
      closeList();
      input.focus();
    }
    return;
  }
  if (editorHas(input)) leave();
  else editor = null;
  // Whoever chose another cell while this one was being kept stays there.
  if (at().cue !== kept.cue || at().column !== kept.column) return;
  choose(cellAt(kept));
  go(down, right);
};

/** Keeps what is written, with the phrase that was picked in it; answers no where that still wants its amount. */
export const accept = (down, right) => {
  editor.input.classList.remove('is-invalid');
  if (picked() && editor.input.value.trim() !== '') {
    if (pickOpen(picked())) return false;
    pick(picked().name);
  }
  keep(down, right);
  return true;
};

/** Puts words where the cursor of the editor stands. */
export const insert = (text) => {
  const { input } = editor;
  input.setRangeText(text, input.selectionStart, input.selectionEnd, 'end');
  offer(false);
};

/** A key that goes to the editor, also one that had to wait. */
export const editorKey = (e) => {
  const inList = editor.box?.isOpen;
  const { key } = e;
  if (key === 'Escape') {
    e.stopPropagation();
    leave();
    baton.clear();
    choose(chosenCell());
  } else if (key === 'Enter' || key === 'Tab') {
    e.preventDefault();
    const by = e.shiftKey ? -1 : 1;
    accept(key === 'Enter' ? by : 0, key === 'Tab' ? by : 0);
  } else if (inList && e.late && key.startsWith('Arrow')) editor.box.move(key === 'ArrowDown' ? 1 : -1);
  else if (e.late && key.length === 1 && !e.ctrlKey) insert(key);
};

// Chosen when the button goes down: a second press on the chosen cell opens it.
let again = null;
export const pressed = (cell) => {
  again = cell;
};
book.addEventListener('click', (e) => {
  if (again && again === e.target.closest('tr.cue [data-column]')) edit();
});
