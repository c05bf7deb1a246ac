import type { AskedOfMatch } from '@vestigia/core';
import { answerMatch } from '@vestigia/core';

/** Answers what is asked of the match off the page’s own thread. */
addEventListener('message', ({ data }: MessageEvent<AskedOfMatch>) => postMessage(answerMatch(data)));
