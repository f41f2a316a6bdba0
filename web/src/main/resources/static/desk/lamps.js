// What is measured of the machines changes each second. It comes over the line while somebody looks: with the pointer or the focus
// there, with the details open, or while a machine needs it.
import { follow } from '../js/live.js';
const lamps = document.getElementById('lamps');
const asks = document.getElementById('lamp-lines');
let lines = {};

const write = () =>
  lamps.querySelectorAll('[data-measured]').forEach((e) => {
    const words = lines[e.closest('li').dataset.deviceId] ?? '';
    if (words && e.textContent !== words) e.textContent = words;
  });
const ask = () => {
  const wanted = lamps.matches(':hover, :focus-within, .open') || !lamps.querySelector('.calm');
  if (wanted === 'live' in asks.dataset) return;
  if (wanted) asks.dataset.live = 'lamp-lines';
  else delete asks.dataset.live;
  follow();
};

if (lamps) {
  document.addEventListener('live', (e) => {
    if (e.detail.topic === 'lamp-lines') lines = JSON.parse(e.detail.data);
    if (e.detail.topic.startsWith('lamp')) write();
    ask();
  });
  for (const change of ['pointerenter', 'pointerleave', 'focusin', 'focusout']) lamps.addEventListener(change, ask);
  document.addEventListener('click', (e) => {
    if (!e.target.closest('[data-lamps]')) return;
    lamps.classList.toggle('open');
    ask();
  });
  ask();
}
