// Hand cues on a tablet: the keys alone, its screen awake.
import './playing.js';
import '../js/awake.js';
