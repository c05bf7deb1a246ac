import type { LotDetail, LotSummary, Material, Proposal, StockLot } from '@vestigia/contract';
import type { Browser } from 'puppeteer-core';
import { v7 as newId } from 'uuid';
import { launch } from '../../scripts/browser.mjs';
import type { Served } from '../../scripts/serve.mjs';
import { serveDemo } from '../../scripts/serve.mjs';
import { Someone } from '../person';

export const D65 = { illuminant: 'D65', observer: '10' } as const;
const DAY_MS = 86_400_000;

/** A step as a recipe says it; what is left out is usual. */
export const step = (kind: string, title: string, doses: object[] = [], rest: object = {}): object => ({
  kind,
  title,
  instruction: '',
  temperatureC: 60,
  durationMin: 60,
  attended: false,
  lookFor: '',
  usesBath: true,
  doses,
  ...rest,
});

/** The demo studio, and what a day at its pots needs before it begins. */
export class DayStudio {
  private constructor(
    private readonly server: Served & { remove(): void },
    private readonly browser: Browser,
    readonly isaby: Someone,
  ) {}

  static async open(): Promise<DayStudio> {
    const [server, browser] = await Promise.all([serveDemo(), launch()]);
    const isaby = await Someone.at(browser, server.base);
    await isaby.signIn('Isaby Fennimore', 'heron at low tide');
    return new DayStudio(server, browser, isaby);
  }

  /** Another person, on a tablet of their own. */
  async somebodyElse(name: string, passphrase: string): Promise<Someone> {
    const person = await Someone.at(this.browser, this.server.base);
    await person.signIn(name, passphrase);
    return person;
  }

  async close(): Promise<void> {
    await this.browser.close();
    await this.server.stop();
    this.server.remove();
  }

  async materialOf(name: string): Promise<Material> {
    const found = (await this.isaby.ask<Material[]>('/api/materials')).find((m) => m.name === name);
    if (!found) throw new Error(`the demo has no ${name}`);
    return found;
  }

  async material(name: string, kind: string, rest: object = {}): Promise<string> {
    const id = newId();
    await this.isaby.send('/api/materials', {
      id,
      name,
      kind,
      measure: 'weight',
      hazards: [],
      note: '',
      base: null,
      ...rest,
    });
    return id;
  }

  /** A base, with a jar of it where an amount is said. */
  async base(name: string, fibre: string, pieceWord: string, usualPieceWeightG: number, onShelf = ''): Promise<string> {
    const undyed = { L: 85, a: 1, b: 9, ...D65 };
    const id = await this.material(name, 'fibre', { base: { fibre, pieceWord, usualPieceWeightG, undyed } });
    if (onShelf) await this.jar(id, onShelf);
    return id;
  }

  async jar(materialId: string, quantityText: string, rest: object = {}): Promise<string> {
    const id = newId();
    await this.isaby.send('/api/stock-lots', {
      id,
      movementId: newId(),
      materialId,
      tag: '',
      quantityText,
      receivedOn: new Date(Date.now() - 30 * DAY_MS).toISOString().slice(0, 10),
      bestBefore: null,
      place: 'Shelf',
      source: 'a day at the pots',
      note: '',
      ...rest,
    });
    return id;
  }

  async recipe(name: string, fibres: readonly string[], steps: readonly object[], rest: object = {}): Promise<string> {
    const versionId = newId();
    const body = {
      fibres,
      liquorRatio: 30,
      allowedMetals: ['stainless', 'enamel', 'plastic'],
      note: '',
      steps,
      ...rest,
    };
    await this.isaby.send('/api/recipes', { id: newId(), name, versionId, body });
    return versionId;
  }

  async colourway(name: string, recipeVersionId: string, baseMaterialId: string, rest: object = {}): Promise<string> {
    const id = newId();
    await this.isaby.send('/api/colourways', {
      id,
      name,
      recipeVersionId,
      baseMaterialId,
      master: null,
      toleranceDeltaE: 3,
      note: '',
      ...rest,
    });
    return id;
  }

  /** Agrees to a lot as the page for it would, whatever cautions stand there. */
  async agreed(
    colourwayId: string,
    quantityText: string,
    rest: object = {},
    told: object | null = null,
  ): Promise<string> {
    const ask = { colourwayId, quantityText, waterId: null, reorderOfId: null, ...rest };
    const proposal = await this.isaby.send<Proposal>('/api/lots/proposal', ask);
    const id = newId();
    const acknowledged = proposal.checks.map((c) => ({ key: c.key, reason: 'looked at, goes on' }));
    const { digest } = proposal;
    await this.isaby.send('/api/lots', {
      id,
      ask,
      digest,
      told,
      acceptShortages: true,
      note: '',
      acknowledged,
    });
    return id;
  }

  lot(id: string): Promise<LotDetail> {
    return this.isaby.ask<LotDetail>(`/api/lots/${id}`);
  }

  async said(id: string): Promise<string> {
    return (await this.lot(id)).deviations.map((d) => d.message).join('\n');
  }

  async newest(): Promise<LotSummary> {
    const [lot] = await this.isaby.ask<LotSummary[]>('/api/lots');
    if (!lot) throw new Error('there is no lot');
    return lot;
  }

  stock(id: string): Promise<StockLot> {
    return this.isaby.ask<StockLot>(`/api/stock-lots/${id}`);
  }

  /** What the page for dyeing a lot again says before anything else. */
  async again(lotId: string): Promise<string> {
    await this.isaby.settled(`/lots/new?again=${lotId}`);
    await this.isaby.page.waitForSelector('vs-then-and-now');
    return this.isaby.text();
  }

  /** Holds a lot for a reason, and reads what is told first when it is dyed again: the reason, and what went otherwise. */
  async heldAndAgain(lotId: string): Promise<string> {
    await this.isaby.settled(`/judge/${lotId}`);
    await this.isaby.write('Reason', 'to be dyed once more');
    await this.isaby.press('Hold it');
    await this.isaby.sees('to be dyed once more', 'p');
    return this.again(lotId);
  }

  /** Opens something folded at the bench, and writes down what was not planned. */
  async wentOtherwise(what: string): Promise<void> {
    await this.isaby.press('Went otherwise');
    await this.isaby.press(what, 'vs-unplanned-panel button');
  }

  /** Writes down what an eye sees of a shade of a lot, on the page where it is judged. */
  async seesByEye(lotId: string, seen: Readonly<Record<string, string>>, piece = ''): Promise<void> {
    await this.isaby.settled(`/judge/${lotId}`);
    for (const [label, option] of Object.entries(seen)) {
      await this.isaby.choose(label, option, 'vs-eye-form');
    }
    if (piece !== '') await this.isaby.write('One piece', piece, 'vs-eye-form');
    await this.isaby.press('Keep what I see');
    await this.isaby.sees(piece === '' ? 'Correct' : `piece ${piece}`, 'vs-eye-form');
  }
}
