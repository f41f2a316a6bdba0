// The editor in a cell, with the phrases that may stand there.
import { book, cellAt, cue, placeOf, words } from './sheet.js';
import { at, choose, chosenCell, showStrip, step } from './choice.js';
import { change, writing } from './writing.js';

const strip = document.getElementById('strip');
let editor = null; // { cell, input, list, at }

const here = () => editor !== null && document.contains(editor.input);
/** Whether a cell is being written, and whether a key goes there. */
export const editing = () => here();
export const editorHas = (target) => here() && editor.input === target;
export const giveUp = () => { editor = null; };

export const write = (to, text) => change(`cues/${to.cue}/cell`, { column: to.column, text, version: cue(to.cue).version });

export const edit = (start) => {
  const cell = chosenCell();
  if (!cell || here()) return;
  const input = Object.assign(document.createElement('input'), { name: 'cell', autocomplete: 'off', value: start ?? words(cell) });
  input.setAttribute('aria-label', 'Write into the cell');
  cell.classList.add('editing');
  cell.append(input);
  editor = { cell, input, list: null, at: placeOf(cell) };
  if (start === undefined && cell.matches('.c')) offer(true);
  if (start !== undefined) offer(false);
  input.addEventListener('input', () => offer(false));
  input.addEventListener('blur', () => { if (!writing() && editorHas(input) && !input.classList.contains('wrong')) keep(0, 0); });
  input.focus();
  if (start === undefined) input.select();
};

// ---- phrases to pick

const closeList = () => { editor.list?.remove(); editor.list = null; };
const lastPart = () => editor.input.value.split(' + ').at(-1).trim().toLowerCase();

// The phrases of the machine that fit what stands after the last plus sign.
const offer = (all) => {
  closeList();
  const { cell, input } = editor;
  if (!cell.matches('.c')) return;
  const wanted = all ? '' : lastPart();
  const phrases = [...document.querySelectorAll(`#phrasebooks [data-device="${cell.dataset.column}"] li`)].map((li) => ({ name: li.textContent, takes: li.dataset.takes }));
  const begins = phrases.filter((p) => p.name.toLowerCase().startsWith(wanted));
  const fit = begins.concat(phrases.filter((p) => !begins.includes(p) && p.name.toLowerCase().includes(wanted)));
  const list = document.createElement('ul');
  list.className = 'choices';
  list.setAttribute('role', 'listbox');
  fit.forEach(({ name, takes }, i) => {
    const li = Object.assign(document.createElement('li'), { textContent: name });
    if (takes) li.dataset.takes = takes;
    li.setAttribute('role', 'option');
    li.setAttribute('aria-selected', i === 0 && !all && wanted !== '');
    li.addEventListener('pointerdown', (e) => { e.preventDefault(); if (!pickOpen(li)) { pick(name); keep(0, 0); } });
    list.append(li);
  });
  if (!fit.length) list.innerHTML = `<li class="none">${phrases.length ? 'no such phrase' : 'its phrasebook is empty; fill it on the page Rig'}</li>`;
  cell.append(list);
  if (list.getBoundingClientRect().bottom > strip.getBoundingClientRect().top) { list.style.top = 'auto'; list.style.bottom = '100%'; }
  input.placeholder = '';
  editor.list = list;
  preview();
};

const picked = () => editor.list?.querySelector('[aria-selected="true"]');
const preview = () => { if (picked()) showStrip(picked().textContent); };
const pick = (name) => { editor.input.value = [...editor.input.value.split(' + ').slice(0, -1), name].join(' + '); };
/** A phrase that takes an amount is not done when it is picked: the amount is typed behind the arrow. */
const pickOpen = (li) => {
  if (!li?.dataset.takes) return false;
  pick(`${li.textContent} → `);
  closeList();
  editor.input.placeholder = li.dataset.takes;
  editor.input.focus();
  return true;
};
const movePick = (by) => {
  const all = [...editor.list.querySelectorAll('[role=option]')];
  const next = all[Math.min(all.length - 1, Math.max(0, all.indexOf(picked()) + by))];
  all.forEach((li) => li.setAttribute('aria-selected', li === next));
  next?.scrollIntoView({ block: 'nearest' });
  preview();
};

// ---- leaving and keeping

const close = () => {
  const { cell, input } = editor;
  closeList();
  editor = null;
  input.remove();
  cell.classList.remove('editing');
};
const leave = () => { close(); document.dispatchEvent(new CustomEvent('left')); };

// What was typed stays in the editor until the book has taken it.
const keep = async (down, right) => {
  const { cell, input, at: kept } = editor;
  if (input.value.trim() === words(cell)) { leave(); step(down, right); return; }
  const taken = await write(kept, input.value);
  if (!taken) { if (editorHas(input)) { input.classList.add('wrong'); closeList(); input.focus(); } return; }
  if (editorHas(input)) leave(); else editor = null;
  // Whoever chose another cell while this one was being kept stays there.
  if (at().cue !== kept.cue || at().column !== kept.column) return;
  choose(cellAt(kept));
  step(down, right);
};

/** A key that goes to the editor, also one that had to wait. */
export const editorKey = (e) => {
  const inList = editor.list?.querySelector('[role=option]');
  const { key } = e;
  if (key === 'Escape') { e.stopPropagation(); leave(); baton.clear(); choose(chosenCell()); } else if (key === 'Enter' || key === 'Tab') {
    e.preventDefault();
    editor.input.classList.remove('wrong');
    if (picked() && editor.input.value.trim() !== '') {
      if (pickOpen(picked())) return;
      pick(picked().textContent);
    }
    const by = e.shiftKey ? -1 : 1;
    keep(key === 'Enter' ? by : 0, key === 'Tab' ? by : 0);
  } else if (inList && key === 'ArrowDown') { e.preventDefault(); movePick(1); } else if (inList && key === 'ArrowUp') { e.preventDefault(); movePick(-1); }
  else if (inList && key === '+' && picked()) { e.preventDefault(); pick(picked().textContent); editor.input.value += ' + '; offer(false); }
  else if (e.late && key.length === 1 && !e.ctrlKey) { editor.input.setRangeText(key, editor.input.selectionStart, editor.input.selectionEnd, 'end'); offer(false); }
};

// Chosen when the button goes down: a second press on the chosen cell opens it.
let again = null;
export const pressed = (cell) => { again = cell; };
book.addEventListener('click', (e) => { if (again && again === e.target.closest('tr.cue [data-column]')) edit(); });
