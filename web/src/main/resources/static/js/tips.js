// What a key or a word does, told where the pointer rests on it.
import { keysOf, printed, table } from './keys.js';

const told = (element) => {
  const { act, tip } = element.dataset;
  const words = tip || table[act]?.words;
  const keys = keysOf(act).map(printed).join(', ');
  return words && keys ? `${words} (${keys})` : words || '';
};

new bootstrap.Tooltip(document.body, {
  selector: '[data-act]',
  title: told,
  trigger: 'hover',
  animation: false,
  delay: { show: 700, hide: 0 },
});
// What is pressed may be gone a moment later, and its tip would stay.
document.addEventListener('click', (e) => bootstrap.Tooltip.getInstance(e.target.closest('[data-act]'))?.hide());
