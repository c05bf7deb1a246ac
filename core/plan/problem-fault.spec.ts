import { describe, expect, it } from 'vitest';
import { aLot, aProblem, aStep, onBurner } from './plan.fixture';
import type { PlanProblem } from './plan-problem';
import { problemFault, sayPlanFault } from './problem-fault';

const one = aProblem([aLot('a', [aStep('x', { beginHandsMin: 10 })], ['pot'])]);
const withStep = (said: Parameters<typeof aStep>[1]): PlanProblem => aProblem([aLot('a', [aStep('x', said)])]);
const nobody = one.people.map((p) => ({ ...p, hours: [], evenings: [] }));

describe('what can’t be planned at all', () => {
  it('is nothing where all is well', () => expect(problemFault(one)).toBeUndefined());
  it.each<[string, PlanProblem, RegExp]>([
    ['two of a name', aProblem([...one.lots, ...one.lots]), /called x. Give each a name/],
    ['a step it doesn’t have', withStep({ after: [{ stepId: 'y', minMin: 0, maxMin: null }] }), /names y, but/],
    [
      'a circle',
      aProblem([
        aLot('a', [
          aStep('x', { after: [{ stepId: 'y', minMin: 0, maxMin: null }] }),
          aStep('y', { after: [{ stepId: 'x', minMin: 0, maxMin: null }] }),
        ]),
      ]),
      /in a circle/,
    ],
    [
      'another lot’s step',
      aProblem([
        aLot('a', [aStep('x')]),
        aLot('b', [aStep('y', { after: [{ stepId: 'x', minMin: 0, maxMin: null }] })]),
      ]),
      /of another lot/,
    ],
    ['a longest time under the shortest', withStep({ aloneMin: 60, aloneMaxMin: 30 }), /less time than it takes/],
    ['a span that runs backwards', aProblem(one.lots, { open: [[60, 0]] }), /ends before it begins/],
    ['a need with nothing that would do', withStep({ needs: [{ amount: 1, options: [] }] }), /Name one/],
    ['more of a burner than there is', withStep({ needs: [{ ...onBurner, amount: 2 }] }), /needs more of Burner/],
    [
      'a pot let go before it is taken',
      aProblem([
        {
          ...aLot('a', [aStep('x'), aStep('y')]),
          holds: [{ id: 'h', resourceIds: ['pot'], amount: 1, fromStepId: 'y', toStepId: 'x', fixedTo: null }],
        },
      ]),
      /let go before it is taken/,
    ],
    [
      'a hazard nobody may handle',
      withStep({ beginHandsMin: 5, hazards: ['dust'] }),
      /Nobody may do “x”.*handle it \(fine powder/,
    ],
    ['a touch longer than any opening', withStep({ beginHandsMin: 900 }), /15 h.*nobody is there longer than 14 h/],
    ['everybody on leave all year', aProblem(one.lots, { people: nobody }), /nobody is there longer than 0 min/],
    [
      'a fire longer than any opening',
      withStep({ aloneMin: 660, overnight: false }),
      /11 h.*never open longer than 10 h/,
    ],
  ])('is %s, and says what to do', (_, problem, says) => {
    const fault = problemFault(problem);
    expect(fault && sayPlanFault(fault)).toMatch(says);
  });
  it('lets what runs already be longer than any opening', () => {
    const fixed = {
      stepId: 'x',
      startMin: 0,
      aloneFromMin: 900,
      aloneToMin: 900,
      endMin: 900,
      beginBy: null,
      endBy: null,
      resourceIds: [],
    };
    expect(problemFault(withStep({ beginHandsMin: 900, fixed }))).toBeUndefined();
  });
});
