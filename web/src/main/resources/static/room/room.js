// Switches of the stand-ins, and the running clip's clock.
import { baton } from '../js/baton.js';
let drawn = performance.now();
document.addEventListener('live', (e) => {
  if (e.detail.topic === 'room') {
    drawn = performance.now();
    tick();
  }
});
const tick = () =>
  document.querySelectorAll('[data-elapsed]').forEach((e) => {
    const s = Math.floor((Number(e.dataset.elapsed) + performance.now() - drawn) / 1000);
    const length = Number(e.dataset.length);
    const clock = (t) => `${Math.floor(t / 60)}:${String(t % 60).padStart(2, '0')}`;
    e.textContent = s >= length ? 'at its end' : `${clock(s)} of ${clock(length)}`;
  });
document.addEventListener('click', (e) => {
  const name = e.target.closest('[data-switch]')?.dataset.switch;
  if (e.target.closest('[data-sort]')) baton.post(`/shows/${baton.show}/room/sort`);
  if (name) baton.post(`/shows/${baton.show}/room/switch`, { name });
  const key = e.target.closest('[data-press]');
  if (key)
    baton.post(`/shows/${baton.show}/room/press`, {
      name: key.closest('[data-keyed]').dataset.keyed,
      key: key.dataset.press,
    });
});
tick();
setInterval(tick, 250);
