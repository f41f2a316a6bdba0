// The page Hands: one module plays, the other edits; a page is one or the other.
if (document.getElementById('hands')) import('./editing.js');
else import('./playing.js');
