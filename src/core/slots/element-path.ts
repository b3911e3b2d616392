/**
 * Where an element stands in its document: the elements around it, outermost first, and itself at the end, each by its name,
 * its id and its class attribute, which are empty where it has none. Empty in surveys of older versions.
 */
export type ElementPath = readonly (readonly [name: string, id: string, classes: string])[];
