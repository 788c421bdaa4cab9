import { describe, expect, it } from '@jest/globals';
import type { Lab } from '@steady-gleam/core/colour';
import { FIVE_ANGLES } from '@steady-gleam/core/optics';
import { render, screen, within } from '@testing-library/react';
import fc from 'fast-check';
import { TRAVEL_ANGLES } from './angles';
import { CupPicture } from './CupPicture';
import { FlopStrip } from './FlopStrip';
import { cssOf } from './screenColour';
import { Strips } from './Strips';
import { TouchingStrip } from './TouchingStrip';
import { travelOf, TravelPicture, unrolled, type Seen } from './TravelPicture';
import { renderAt } from '../testing/page';

const grey = (l: number): Lab => [l, 0, 0];
const five = (l: number): Lab[] => FIVE_ANGLES.map((_, g) => grey(l - 5 * g));
/** Backgrounds within an element, in the order they stand. */
const coloursIn = (element: HTMLElement): string[] =>
  [...element.querySelectorAll<HTMLElement>('div')].map((d) => d.style.background).filter(Boolean);
const asShown = (css: string): string => {
  const probe = document.createElement('div');
  probe.style.background = css;
  return probe.style.background;
};

describe('colours that are compared', () => {
  it('stand one over the other at every angle, touching, with the angles below', () => {
    renderAt('/', <FlopStrip angles={FIVE_ANGLES} target={five(60)} sample={five(55)} label="Target over card" />);
    const strip = screen.getByRole('img', { name: 'Target over card' });
    expect(strip.children).toHaveLength(5);
    for (const [g, column] of [...strip.children].entries()) {
      expect(coloursIn(column as HTMLElement)).toEqual([cssOf(five(60)[g]!), cssOf(five(55)[g]!)].map(asShown));
      const [above, below] = [...column.children] as HTMLElement[];
      for (const half of [above!, below!]) expect([half.style.margin, half.style.border]).toEqual(['', '']);
    }
    expect(screen.getByText('110°')).toBeTruthy();
    expect(screen.queryByText(/beyond this screen/)).toBeNull();
  });

  it('that a screen can’t show are said and marked', () => {
    renderAt('/', <FlopStrip angles={FIVE_ANGLES} target={FIVE_ANGLES.map((): Lab => [60, -90, 70])} label="Green" />);
    expect(screen.getByText('◥ beyond this screen')).toBeTruthy();
  });

  it('under several lamps have them told apart', () => {
    renderAt('/', <FlopStrip angles={TRAVEL_ANGLES} target={TRAVEL_ANGLES.map(() => grey(50))} label="Travel" />);
    expect(screen.getByText('lamp 25°')).toBeTruthy();
    expect(screen.getByText('lamp 65°')).toBeTruthy();
  });

  it('in a row of a list share the exposure of what they are held against', () => {
    const { container } = render(
      <TouchingStrip over={[grey(140)]} under={[grey(70)]} height={40} label="Wanted over 2 coats" />,
    );
    const [over, under] = coloursIn(container);
    expect(over).toBe(asShown('rgb(255, 255, 255)'));
    // Dimmed as far as the brighter one above it.
    expect(under).not.toBe(asShown(cssOf(grey(70))));
  });

  it('of a table leave open what was not read', () => {
    const { container } = render(
      <Strips
        pairs={[
          ['#aaaaaa', '#bbbbbb'],
          ['#cccccc', null],
        ]}
        width={100}
      />,
    );
    expect(coloursIn(container)).toEqual([...['#aaaaaa', '#bbbbbb', '#cccccc'].map(asShown), 'none']);
    expect(container.firstElementChild!.getAttribute('aria-hidden')).toBe('true');
  });
});

describe('the cup', () => {
  const parts = [
    { name: 'binder', ml: 560, mark: 560, grams: null, runningGrams: null },
    { name: 'blue pearl', ml: 93, mark: 653, grams: null, runningGrams: null },
    { name: 'lagoon blue', ml: 7, mark: 660, grams: null, runningGrams: null },
  ];

  it('says to which mark each part is poured', () => {
    renderAt('/', <CupPicture parts={parts} cup={1400} ml={660} />);
    const cup = screen.getByRole('img', { name: /^Cup of 1400 ml: binder to 560 ml, blue pearl to 653 ml/ });
    expect(within(cup).getByText('660 of 1400 ml')).toBeTruthy();
  });

  it('has its marks in their order from the floor up, and no figure over another', () => {
    const { container } = renderAt('/', <CupPicture parts={parts} cup={1400} ml={660} />);
    const figures = [...container.querySelectorAll('text')].filter((t) => /^\d+$/.test(t.textContent));
    const heights = figures.map((t) => Number(t.getAttribute('y')));
    expect(figures.map((t) => t.textContent)).toEqual(['560', '653', '660']);
    heights.slice(1).forEach((y, i) => expect(heights[i]! - y).toBeGreaterThanOrEqual(17));
  });
});

describe('travel', () => {
  const seen = (incidence: number, aspecular: number, hue: number, chroma = 40): Seen => ({
    ...{ incidence, aspecular },
    lab: [50, chroma * Math.cos((hue * Math.PI) / 180), chroma * Math.sin((hue * Math.PI) / 180)],
  });

  it('hues follow one another without a jump, and stay the hues they are', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 359.9, noNaN: true }), { minLength: 1, maxLength: 8 }), (hues) => {
        const rolled = unrolled(hues);
        rolled.forEach((h, i) => {
          expect(Math.abs((h - hues[i]!) / 360 - Math.round((h - hues[i]!) / 360))).toBeLessThan(1e-9);
          if (i) expect(Math.abs(h - rolled[i - 1]!)).toBeLessThanOrEqual(180 + 1e-9);
        });
      }),
    );
    expect(unrolled([350, 10, 30])).toEqual([350, 370, 390]);
  });

  it('is how far the face turns from lamp to lamp, over the red too; none by one lamp or where there is no hue', () => {
    expect(travelOf([seen(25, 15, 350), seen(45, 15, 5), seen(65, 15, 40), seen(65, 25, 200)])).toBeCloseTo(50, 6);
    expect(travelOf([seen(45, 15, 100), seen(45, 25, 140)])).toBeNull();
    expect(travelOf([seen(25, 15, 100, 2), seen(65, 15, 140)])).toBeNull();
  });

  it('is drawn with the target in rings and what is compared in dots, and said below', () => {
    const target = [seen(25, 15, 200), seen(45, 15, 230), seen(65, 15, 260)];
    const { container } = renderAt('/', <TravelPicture target={target} sample={target} compact />);
    expect(container.querySelectorAll('svg')).toHaveLength(1);
    expect(container.querySelectorAll('circle title')).toHaveLength(6);
    expect(screen.getByText(/rings: target, dots: prediction/)).toBeTruthy();
    renderAt('/', <TravelPicture target={target} />);
    expect(screen.getByText(/From lamp to lamp the face turns by 60° of hue/)).toBeTruthy();
  });
});
