import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Material } from '@vestigia/contract';
import { EMPTY, of } from 'rxjs';
import { expect, it, vi } from 'vitest';
import { ApiClient } from '../../../api/api-client';
import { LiveChanges } from '../../../api/live-query';
import { MaterialGround } from './material-ground';

const LIGHT = { illuminant: 'D65', observer: '10' } as const;
const wool = {
  id: 'rug',
  version: 7,
  name: 'Rug wool',
  kind: 'fibre',
  base: { fibre: 'wool', pieceWord: 'hank', usualPieceWeightG: 100, undyed: { L: 84, a: 1, b: 12, ...LIGHT } },
} as unknown as Material;

it('a base is read anew where it stands, and everything else of it stays; what is no fibre has nothing to read', async () => {
  const put = vi.fn().mockReturnValue(of({}));
  TestBed.configureTestingModule({
    providers: [
      { provide: ApiClient, useValue: { get: () => of([]), put } },
      { provide: LiveChanges, useValue: { listen: () => EMPTY, connected: signal(true) } },
    ],
  });
  const fixture = TestBed.createComponent(MaterialGround);
  const page = fixture.nativeElement as HTMLElement;
  const changed = vi.fn();
  fixture.componentInstance.changed.subscribe(changed);
  fixture.componentRef.setInput('material', wool);
  await fixture.whenStable();
  fixture.detectChanges();
  expect(page.textContent.replaceAll(/\s+/g, ' ')).toMatch(/L\* 84\.0, a\* 1\.0, b\* 12\.0\. CIE whiteness/);
  for (const [name, value] of [
    ['L', '82'],
    ['a', '2'],
    ['b', '15'],
  ]) {
    const field = page.querySelector<HTMLInputElement>(`input[name="${name}"]`)!;
    field.value = value!;
    field.dispatchEvent(new Event('input'));
    field.dispatchEvent(new Event('change'));
  }
  [...page.querySelectorAll('button')].find((b) => b.textContent.trim() === 'Keep its colour')!.click();
  expect(put).toHaveBeenCalledWith(
    '/api/materials/{id}',
    {
      version: 7,
      name: 'Rug wool',
      kind: 'fibre',
      base: { ...wool.base, undyed: { L: 82, a: 2, b: 15, ...LIGHT }, undyedSpectrum: null },
    },
    'rug',
  );
  expect(changed).toHaveBeenCalledOnce();
  fixture.componentRef.setInput('material', { ...wool, kind: 'dyestuff', base: null });
  await fixture.whenStable();
  expect(page.querySelector('vs-ground-colour')).toBeNull();
});
