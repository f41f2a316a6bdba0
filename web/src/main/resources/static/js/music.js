// Where the music is: the performer tells the position at every change, the item's beats are asked for once. So it is known
// from beat to beat without anything being sent, also while the line is gone.
import { baton } from './baton.js';

/** @type {{item: number, at: number, when: number, pace: number, paused: boolean, plan: string, vampFrom: number, vampTo: number, code?: {rate: string, first: number, ahead: number}, table: any} | null} */
let music = null;
const element = document.getElementById('playing');
const watchers = new Set();
const moved = () => watchers.forEach((does) => does());

/** Does something whenever the music was moved, or another item plays. */
export const whenMoved = (does) => watchers.add(does);

const hear = async () => {
  let state;
  try {
    state = JSON.parse(element.textContent || '{}');
  } catch {
    return;
  }
  if (!state.item) {
    music = null;
    moved();
    return;
  }
  const now = { ...state, table: music?.plan === state.plan ? music.table : null };
  music = now;
  if (now.table) {
    moved();
    return;
  }
  const response = await fetch(`/shows/${baton.show}/desk/beats?item=${state.item}`).catch(() => null);
  if (response?.ok) {
    now.table = await response.json();
    moved();
  }
};

/** The last of a list that has come by a time. */
export const last = (list, ms, time) => {
  let low = -1;
  for (let high = list.length - 1; low < high;) {
    const m = (low + high + 1) >> 1;
    if (time(list[m]) <= ms) low = m;
    else high = m - 1;
  }
  return list[low];
};

/** The item that plays and where in it the music is, ms since it began; null while nothing plays, or its beats are not known yet. */
export const here = () =>
  music?.table
    ? { ...music, ms: music.at + (music.paused ? 0 : ((baton.now() - music.when) * music.pace) / 1000) }
    : null;

const DROP = '29.97';
/** The name of a frame of the day (SMPTE ST 12-1): with drop-frame, numbers 0 and 1 are left out in each minute but every tenth. */
export const frameName = (count, rate) => {
  const each = Math.round(Number(rate));
  let n = count;
  if (rate === DROP) {
    const within = n % 17982;
    n += 18 * Math.floor(n / 17982) + (within < 1800 ? 0 : 2 * (1 + Math.floor((within - 1800) / 1798)));
  }
  const s = Math.floor(n / each);
  return [Math.floor(s / 3600) % 24, Math.floor(s / 60) % 60, s % 60, n % each]
    .map((part) => String(part).padStart(2, '0'))
    .join(':');
};

/**
 * The frame that machines are told by now; empty where none is.
 * @param {{code?: {rate: string, first: number, ahead: number}, ms: number}} now
 */
export const codeAt = ({ code, ms }) => {
  if (!code) return '';
  const aSecond = code.rate === DROP ? 30000 / 1001 : Number(code.rate);
  return frameName(code.first + Math.floor((Math.max(0, ms + code.ahead) * aSecond) / 1000), code.rate);
};

/** How far a place is: whole bars, and seconds at the pace of the day. */
export const until = (now, at) => {
  const beat = last(now.table.beats, now.ms, (b) => b[0]);
  const due = last(now.table.beats, at, (b) => b[0]);
  return { bars: due && beat ? due[1] - beat[1] : 0, seconds: Math.max(0, (at - now.ms) / now.pace), beat };
};

if (element) new MutationObserver(hear).observe(element, { childList: true, characterData: true, subtree: true });
