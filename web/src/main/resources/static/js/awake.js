// A page that is looked at all evening: its screen stays on, and it waits for the next show by itself.

let awake = null;
const stayAwake = async () => {
  if (document.hidden || !navigator.wakeLock) return;
  awake = await navigator.wakeLock.request('screen').catch(() => awake);
};
document.addEventListener('visibilitychange', stayAwake);
stayAwake();

// Another show is on the desk, or none: the link stays, and shows that one.
const AGAIN_MS = 3000;
let again = 0;
const elsewhere = () => {
  if (again || !document.querySelector('[data-gone]')) return;
  again = setTimeout(() => location.reload(), AGAIN_MS);
};
document.addEventListener('live', elsewhere);
elsewhere();
