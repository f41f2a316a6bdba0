// What the show on the desk tells all pages. What is out tonight is struck through wherever it stands, also in what is drawn later: by rules, not by marks.
import { baton } from './baton.js';
const told = document.getElementById('armed');
const rules = new CSSStyleSheet();
document.adoptedStyleSheets = [...document.adoptedStyleSheets, rules];

const struck = (out) => [
  ...out.cues.flatMap((id) => [
    `[data-cue="${id}"] .said`,
    `[data-cue="${id}"] .w`,
    `g[data-cue="${id}"] text.cue`,
    `.standby[data-cue="${id}"] h2`,
  ]),
  ...out.items.flatMap((id) => [
    `[data-item="${id}"] .item-name b`,
    `[data-item="${id}"] .said`,
    `.heading[data-item="${id}"] span`,
    `#sheet[data-item="${id}"] text.cue`,
  ]),
  ...out.devices.flatMap((id) => [
    `th[data-column="${id}"] small`,
    `td[data-column="${id}"] .said`,
    `[data-device-id="${id}"] b`,
  ]),
];

const take = () => {
  let out = { cues: [], items: [], devices: [] };
  try {
    out = { ...out, ...JSON.parse(told.textContent || '{}') };
  } catch {
    return;
  }
  const all = struck(out);
  rules.replaceSync(all.length ? `${all.join(',')} { text-decoration: line-through 2px; opacity: .6 }` : '');
};

if (told) {
  new MutationObserver(take).observe(told, { childList: true, characterData: true, subtree: true });
  take();
}

document.addEventListener('click', (e) => {
  if (e.target.closest('[data-take-over]')) baton.post(`/shows/${baton.show}/desk/take-over`);
});
