import { sayFrom } from '../letdown/eyeWords';
import { wayOf } from '../products/ways';
import { type Check, usualLook } from './checks';
import { sayList } from './list';

/** A check in a heading and what there is to do. @param names of the areas it is about. @param prep how the families of the job are sanded */
export function sayCheck(
  check: Pick<Check, 'kind' | 'coats' | 'text' | 'spot' | 'views'>,
  object: string,
  names: string,
  prep: readonly string[] = [],
): { readonly title: string; readonly text: string } {
  const at = check.spot || names;
  switch (check.kind) {
    case 'prep':
      return {
        title: 'Make it ready',
        text: `Sanded as the sheet says: ${prep.length ? prep.join('; ') : 'about P500 to P600 under base'}, P800 or finer in blends. Degreased, wiped before it dries, blown off, tacked, masked. Degreaser: gloves, exhaust on, no spark, wipes into a lidded can. Old paint may hold lead or chromate: never dry-sand it; local rules come first.`,
      };
    case 'shake':
      return { title: 'Shake the cans', text: wayOf({ kind: 'aerosol' })!.shake };
    case 'hiding':
      return {
        title: `Does the ground hide on ${object}?`,
        text: `Lights off, a daylight lamp along ${names}: nothing of what lies below shows, and no nib stands out.`,
      };
    case 'mist':
      return {
        title: `Look at the mist coat on ${names}`,
        text: 'It lies even and draws back nowhere: no fisheye, no spit, no lint. Here it still costs nothing; a wet coat over it costs the ground.',
      };
    case 'mount':
      return {
        title: `Mount ${names} as on ${object}`,
        text: 'Flakes and pearl lie as the part hangs: for the effect coats it hangs where it will sit.',
      };
    case 'look':
      if (check.views)
        return {
          title: `Stop. Look at ${at}.`,
          text: `Mended: held against what has to be matched ${sayList(check.views.map(sayFrom))}, before anything goes over it.`,
        };
      return {
        title: `Stop. Look at ${object}.`,
        text: 'Face and flop against what has to be matched; wet, or under a cleared patch.',
      };
    case 'close':
      return { title: `Close ${names}`, text: 'The jambs have their coats: close them before the last coat outside.' };
    case 'mask':
      return {
        title: `Mask for ${names}`,
        text: 'The tone below is locked and dry to tape: soft edges, film right side out, tack the open part.',
      };
    case 'unmask':
      return {
        title: `Unmask ${names}`,
        text: 'Pull the tape back over itself while the edge is soft; then clear goes over all.',
      };
    case 'tail':
      return {
        title: `Look at the blend’s tail on ${names}`,
        text: 'From the flop and in low light: no edge, no dry halo. Now it can be mended; under clear it can’t.',
      };
    case 'lamp':
      return {
        title: `Lights off on ${object} before clear`,
        text: 'A lamp along every side: no mottle, no stripe, no dust. Clear keeps what is there.',
      };
    case 'flat':
      return {
        title: `Sand ${names} flat`,
        text: 'Until no flake stands up, never into the flakes; then clean, tack and clear again. Dust mask; wet where it can be.',
      };
    case 'standing':
      return {
        title: 'Let it stand',
        text: 'Before heat: solvent that is still in the film pops. At least as long as the sheet says.',
      };
    case 'dry':
      return { title: 'Let it dry', text: check.text ?? '' };
    case 'clean':
      return {
        title: `Clean ${at}`,
        text: `${check.text ?? ''} Degreaser: gloves, exhaust on, no spark, wiped off while it is wet, wipes into a lidded can.`,
      };
    case 'sand':
      return {
        title: `Sand ${at}`,
        text: `${check.text ?? ''} Dust mask, wet where it can be; old paint below may hold lead or chromate: never dry-sand into it; local rules come first.`,
      };
    case 'polish':
      return {
        title: `Polish ${at}`,
        text: `${check.text ?? ''} Only when it is cured as the sheet says; keep the pad moving, heat marks it. Eyes covered.`,
      };
    case 'strip':
      return {
        title: `Strip ${at}`,
        text: `${check.text ?? ''} Dust mask, wet where it can be; old paint may hold lead or chromate: never dry-sand it. Stripper only as its sheet says.`,
      };
    case 'tint':
      return { title: 'Tint the cup, half first', text: check.text ?? '' };
    case 'set':
      return { title: 'Set the gun', text: check.text ?? '' };
    case 'bake':
      return {
        title: 'Bake',
        text: 'As the sheet says, about 60 °C at the part; vinyl, plastics and glued parts limit it. No solvent, rag or open can in the oven.',
      };
  }
}

/** After how many coats an object is looked at: as it was set, else one less than its count. */
export const lookAfter = (
  counts: readonly { readonly finishId: string; readonly lookAfter: number | null }[],
  finishId: string,
  coats: number,
): number | null => counts.find((c) => c.finishId === finishId)?.lookAfter ?? usualLook(coats);
