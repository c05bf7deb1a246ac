import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { MatFormFieldHarness } from '@angular/material/form-field/testing';
import { MatInputHarness, MatNativeSelectHarness } from '@angular/material/input/testing';
import type { ListedMaterial } from '@vestigia/contract';
import { VOLUME_SYSTEM_LABELS } from '@vestigia/core';
import { beforeEach, describe, expect, it } from 'vitest';
import { DoseForm } from './dose-form';
import type { DoseDraft } from './draft';
import { newDose } from './draft';

const material = (id: string, measure: ListedMaterial['measure']): ListedMaterial =>
  ({ id, name: id, measure }) as ListedMaterial;

describe('writing a dose', () => {
  let fixture: ComponentFixture<DoseForm>;
  let dose: DoseDraft;

  const fields = async (): Promise<readonly string[]> => {
    const all = await TestbedHarnessEnvironment.loader(fixture).getAllHarnesses(MatFormFieldHarness);
    return Promise.all(all.map(async (field) => (await field.getLabel()) ?? ''));
  };
  const field = (label: string): Promise<MatFormFieldHarness> =>
    TestbedHarnessEnvironment.loader(fixture).getHarness(MatFormFieldHarness.with({ floatingLabelText: label }));
  const choose = async (label: string, text: string): Promise<void> => {
    const select = (await (await field(label)).getControl(MatNativeSelectHarness)) as MatNativeSelectHarness;
    await select.selectOptions({ text });
  };

  beforeEach(() => {
    dose = { ...newDose(), materialId: 'weld' };
    fixture = TestBed.createComponent(DoseForm);
    fixture.componentRef.setInput('dose', dose);
    fixture.componentRef.setInput('materials', [material('weld', 'weight'), material('cones', 'pieces')]);
    fixture.componentRef.setInput('name', 'dose0');
  });

  it('asks whose spoon only where spoons differ', async () => {
    await choose('Dosed', 'so much for the bath');
    expect(await fields()).toEqual(['Material', 'Dosed', 'For each bath', 'in']);
    await choose('in', 'tbsp');
    expect(await fields()).toEqual(['Material', 'Dosed', 'For each bath', 'in', 'of']);
    await choose('of', VOLUME_SYSTEM_LABELS.us);
    expect(dose).toMatchObject({ by: 'perBath', bathUnit: 'tbsp', system: 'us' });
    await choose('in', 'ml');
    expect(await fields()).toEqual(['Material', 'Dosed', 'For each bath', 'in']);
  });

  it('asks whose spoon for a taught spoon', async () => {
    await choose('Dosed', 'by a taught spoon');
    expect(await fields()).toEqual(['Material', 'Dosed', 'Spoons per 100 g of fibre', 'Spoon', 'of']);
    await choose('of', VOLUME_SYSTEM_LABELS.us);
    expect(dose).toMatchObject({ by: 'spoons', unit: 'tsp', system: 'us' });
  });

  it('takes both ends of a range', async () => {
    const end = (await (await field('up to %, where it is a range')).getControl(MatInputHarness)) as MatInputHarness;
    await end.setValue('12,5');
    await end.blur();
    expect(dose.second).toBe(12.5);
  });

  it('asks no figure where all there is goes in', async () => {
    await choose('Dosed', 'as much as there is');
    expect(await fields()).toEqual(['Material', 'Dosed']);
  });

  it('leaves a way that the next material can’t be dosed in', async () => {
    await choose('Material', 'cones');
    expect(dose.materialId).toBe('cones');
    expect(['packet', 'count', 'perBath', 'allThere']).toContain(dose.by);
  });
});
