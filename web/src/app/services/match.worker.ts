import type { AskedOfMatch } from '@vestigia/core';
import { answerMatch } from '@vestigia/core';

/** Answers what is asked of the match off the page’s own thread, one after another. */
addEventListener('message', ({ data: { id, asked } }: MessageEvent<{ id: number; asked: AskedOfMatch }>) =>
  postMessage({ id, answer: answerMatch(asked) }),
);
