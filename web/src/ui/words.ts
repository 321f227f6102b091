/** A number with its noun: "1 change", "3 changes". */
export const many = (count: number, one: string, more: string) => `${count} ${count === 1 ? one : more}`

/** How the tiers of options are called on screens; “instead” is only their name in a file. */
const tiers: Record<string, string> = { instead: 'alternative' }

/** A tier as it is called on screens: main, easier, harder, alternative. */
export const tierWord = (tier: string) => tiers[tier] ?? tier

/** With a capital, for the beginning of a line. */
export const sentence = (words: string) => words.charAt(0).toUpperCase() + words.slice(1)
