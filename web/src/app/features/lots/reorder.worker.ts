import type { ReorderAsk } from '@vestigia/core';
import { answerReorder } from '@vestigia/core';

/** Learns from the record and looks for corrections off the page’s own thread: that takes a second or two. */
addEventListener('message', ({ data }: MessageEvent<ReorderAsk>) => postMessage(answerReorder(data)));
