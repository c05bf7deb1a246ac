import type { Fits } from './fits';
import { readFits } from './fits';
import type { KnownStrength } from './dyeing';
import type { GradedAnswer, GradedAsk } from './graded';
import { gradedFamily } from './graded';
import type { Observation } from './posterior';
import type { ReachAnswer, ReachAsk } from './reach';
import { reachShade } from './reach';
import type { ReorderAnswer, ReorderAsk } from './reorder';
import { answerReorder } from './reorder';
import type { RescueAnswer, RescueAsk } from './rescue';
import { rescueLot } from './rescue';
import type { JarStrength, Review } from './review';
import { jarStrengths, reviewRecord } from './review';

/** What is looked over: everything read, and the jars that are asked about. */
export interface ReviewAsk {
  readonly readings: readonly Observation[];
  readonly strengths: readonly KnownStrength[];
  readonly stockLotIds: readonly string[];
}

/** What can be asked of the match, and what is answered. All of it takes a second or more: ask off the page’s own thread. */
export interface MatchQuestions {
  readonly reorder: { readonly ask: ReorderAsk; readonly answer: ReorderAnswer };
  readonly reach: { readonly ask: ReachAsk; readonly answer: ReachAnswer };
  readonly rescue: { readonly ask: RescueAsk; readonly answer: RescueAnswer };
  readonly graded: { readonly ask: GradedAsk; readonly answer: GradedAnswer };
  /** `null`: too little was read. */
  readonly review: { readonly ask: ReviewAsk; readonly answer: Review | null };
  /** How a shade goes with dose, time, dip, mordant, modifier; `null`: too little was read. */
  readonly fits: { readonly ask: Omit<ReviewAsk, 'stockLotIds'>; readonly answer: Fits | null };
  /** How strong jars are; `null`: too little was read. */
  readonly strengths: { readonly ask: ReviewAsk; readonly answer: readonly JarStrength[] | null };
}

/** Names a question. */
export type MatchQuestion = keyof MatchQuestions;

/** A question with what it is asked about. */
export type AskedOfMatch = {
  [Q in MatchQuestion]: { readonly question: Q; readonly ask: MatchQuestions[Q]['ask'] };
}[MatchQuestion];

/** Answers whatever is asked; the same question gives the same answer. */
export function answerMatch(asked: AskedOfMatch): MatchQuestions[MatchQuestion]['answer'] {
  switch (asked.question) {
    case 'reorder':
      return answerReorder(asked.ask);
    case 'reach':
      return reachShade(asked.ask);
    case 'rescue':
      return rescueLot(asked.ask);
    case 'graded':
      return gradedFamily(asked.ask);
    case 'review':
      return reviewRecord(asked.ask.readings, asked.ask.strengths, asked.ask.stockLotIds) ?? null;
    case 'fits':
      return readFits(asked.ask.readings, asked.ask.strengths) ?? null;
    case 'strengths':
      return jarStrengths(asked.ask.readings, asked.ask.strengths, asked.ask.stockLotIds) ?? null;
  }
}
