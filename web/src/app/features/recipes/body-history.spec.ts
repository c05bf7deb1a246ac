import { describe, expect, it } from 'vitest';
import { BodyHistory } from './body-history';
import { newBody } from './draft';

describe('what a recipe looked like before', () => {
  it('is gone back to and forward to, one writing at a time', () => {
    const history = new BodyHistory();
    const body = newBody();
    history.note(body);
    expect([history.canUndo(), history.canRedo()]).toEqual([false, false]);
    body.liquorRatio = 20;
    history.note(body);
    history.note(body);
    body.liquorRatio = 15;
    // What was written last counts, though nobody noted it yet.
    expect(history.undo(body)?.liquorRatio).toBe(20);
    const twenty = { ...body, liquorRatio: 20 };
    expect(history.undo(twenty)?.liquorRatio).toBe(newBody().liquorRatio);
    expect(history.undo(newBody())).toBeUndefined();
    expect([history.redo()?.liquorRatio, history.redo()?.liquorRatio, history.redo()]).toEqual([20, 15, undefined]);
  });

  it('forgets what was undone once something new is written', () => {
    const history = new BodyHistory();
    const body = newBody();
    history.note(body);
    body.liquorRatio = 20;
    history.undo(body);
    const other = { ...newBody(), liquorRatio: 50 };
    history.note(other);
    expect([history.canRedo(), history.redo()]).toEqual([false, undefined]);
    expect(history.undo(other)?.liquorRatio).toBe(newBody().liquorRatio);
  });
});
