/** A number with its noun: "1 change", "3 changes". */
export const many = (count: number, one: string, more: string) => `${count} ${count === 1 ? one : more}`
