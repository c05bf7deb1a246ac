import '@angular/localize/init';
import type { AskedOfMatch } from '@vestigia/core';
import { answerMatch, watchLearning } from '@vestigia/core';

let asking = 0;
watchLearning((learning) => postMessage({ id: asking, learning }));

/** Answers what is asked of the match off the page’s own thread, one after another. */
addEventListener('message', ({ data: { id, asked } }: MessageEvent<{ id: number; asked: AskedOfMatch }>) => {
  asking = id;
  postMessage({ id, answer: answerMatch(asked) });
});
