import type { PlanOption } from '../../api/client'

/** The words of an option, as the plan language lists them and as a trainer says them. */
export const optionFields: { key: keyof PlanOption; label: string; words: [string, string][] }[] = [
  {
    key: 'depth',
    label: 'Depth',
    words: [
      ['small', 'small range'],
      ['quarter', 'quarter'],
      ['half', 'half'],
      ['parallel', 'thighs level'],
      ['full', 'full'],
      ['knee', 'hands to knee height'],
      ['midShin', 'hinge: to mid-shin'],
      ['floor', 'hinge: to the floor'],
    ],
  },
  {
    key: 'support',
    label: 'Support',
    words: [
      ['none', 'none'],
      ['hand', 'one hand'],
      ['twoHands', 'two hands'],
      ['handOnThigh', 'hand on thigh'],
      ['wall', 'wall'],
      ['chair', 'chair'],
      ['doorway', 'doorway'],
      ['knees', 'knees'],
      ['forearms', 'forearms'],
      ['helper', 'a helper'],
    ],
  },
  {
    key: 'base',
    label: 'Stance',
    words: [
      ['wide', 'wide'],
      ['hip', 'hip-wide'],
      ['narrow', 'narrow'],
      ['staggered', 'staggered'],
      ['split', 'split'],
      ['frontRaised', 'front foot raised'],
      ['rearRaised', 'rear foot raised'],
      ['single', 'one leg'],
    ],
  },
  {
    key: 'toes',
    label: 'Toes',
    words: [
      ['ahead', 'ahead'],
      ['out', 'turned out'],
    ],
  },
  {
    key: 'step',
    label: 'Step',
    words: [
      ['short', 'short'],
      ['normal', 'normal'],
      ['long', 'long'],
    ],
  },
  {
    key: 'trunk',
    label: 'Trunk',
    words: [
      ['upright', 'upright'],
      ['leaning', 'leaning'],
    ],
  },
  {
    key: 'arms',
    label: 'Arms',
    words: [
      ['free', 'free'],
      ['forward', 'forward'],
      ['sides', 'at the sides'],
      ['hips', 'on the hips'],
      ['crossed', 'crossed'],
      ['overhead', 'overhead'],
    ],
  },
  {
    key: 'surface',
    label: 'On',
    words: [
      ['floor', 'floor'],
      ['mat', 'mat'],
      ['pad', 'pad'],
      ['step', 'step'],
      ['box', 'box'],
      ['chair', 'chair'],
      ['bench', 'bench'],
      ['wall', 'wall'],
      ['soft', 'soft ground'],
    ],
  },
  {
    key: 'impact',
    label: 'Impact',
    words: [
      ['none', 'none'],
      ['hop', 'hop'],
      ['jump', 'jump'],
    ],
  },
  {
    key: 'band',
    label: 'Band',
    words: [
      ['none', 'none'],
      ['light', 'light'],
      ['medium', 'medium'],
      ['strong', 'strong'],
    ],
  },
  {
    key: 'grip',
    label: 'Grip',
    words: [
      ['overhand', 'overhand'],
      ['mixed', 'mixed'],
      ['neutral', 'neutral'],
    ],
  },
]

export const loadFields = {
  implement: [
    ['dumbbell', 'dumbbell'],
    ['kettlebell', 'kettlebell'],
    ['barbell', 'barbell'],
    ['plate', 'plate'],
    ['ball', 'ball'],
    ['bottle', 'bottle'],
    ['machine', 'machine'],
  ],
  position: [
    ['goblet', 'at the chest'],
    ['sides', 'at the sides'],
    ['shoulders', 'on the shoulders'],
    ['rack', 'racked at one shoulder'],
    ['frontRack', 'front rack'],
    ['back', 'on the back'],
    ['overhead', 'overhead'],
    ['hips', 'across the hips'],
    ['low', 'held low'],
  ],
  side: [
    ['same', 'the working side'],
    ['opposite', 'the other side'],
    ['both', 'both sides'],
  ],
} satisfies Record<string, [string, string][]>

export const phases: [string, string][] = [
  ['warmup', 'warm-up'],
  ['activation', 'activation'],
  ['skill', 'technique practice'],
  ['main', 'main block'],
  ['core', 'core'],
  ['finisher', 'finisher'],
  ['cooldown', 'cool-down'],
  ['talk', 'talk'],
]

export const counts: [string, string][] = [
  ['down', 'down'],
  ['up', 'up'],
  ['last5', 'only the last five'],
  ['off', 'no counting'],
]

/** How an instructor stands to show a station. */
export const viewpoints: [string, string][] = [
  ['side', 'from the side'],
  ['front', 'from the front'],
  ['back', 'from behind'],
  ['turn', 'turning round'],
]
