// The sheet of a page's keys: choose a line, press the key that shall do it.
import { actionOf, bind, bindAsBefore, does, keysOf, named, printed, table } from './keys.js';

const sheet = document.getElementById('key-sheet');
const rows = sheet?.querySelector('.keys-list');

const caps = (action) =>
  keysOf(action).flatMap((key) => [Object.assign(document.createElement('kbd'), { textContent: printed(key) }), ' ']);

const draw = () =>
  rows.replaceChildren(
    ...Object.entries(table).map(([action, { words, fixed }]) => {
      const row = document.createElement('tr');
      row.insertCell().textContent = words;
      const cell = row.insertCell();
      if (fixed) {
        cell.append(...caps(action));
        return row;
      }
      const button = Object.assign(document.createElement('button'), { type: 'button', className: 'firm' });
      button.append(...caps(action));
      button.dataset.of = action;
      button.setAttribute(
        'aria-label',
        `${words}: ${keysOf(action).map(printed).join(', ')}; press to bind another key`,
      );
      button.addEventListener('click', () => listen(button, action));
      cell.append(button);
      return row;
    }),
  );

const listen = (button, action) => {
  button.textContent = 'press a key';
  button.classList.add('listening');
  const heard = (e) => {
    if (['Shift', 'Control', 'Alt', 'Meta'].includes(e.key)) return;
    e.preventDefault();
    e.stopPropagation();
    button.removeEventListener('keydown', heard);
    button.classList.remove('listening');
    const key = named(e);
    // These two stay what they are everywhere: the way out, and the way on.
    const leaves = key === 'Escape' || key.endsWith('Tab');
    const owner = actionOf(key);
    if (!leaves && owner && owner !== action) {
      button.textContent = `taken: ${table[owner].words}`;
      return;
    }
    if (!leaves) bind(action, key);
    draw();
    rows.querySelector(`[data-of="${action}"]`).focus();
  };
  button.addEventListener('keydown', heard);
};

does({
  keys: () => {
    if (!sheet) return false;
    draw();
    sheet.showModal();
    return true;
  },
});
sheet?.querySelector('[data-keys-reset]').addEventListener('click', () => {
  bindAsBefore();
  draw();
});
