/** How a property of a body is read that its class does not look into. */
export interface Apart {
  /** Whether a value is of the kind that is read; what is not is left to the class, which refuses it. */
  fits(value: unknown): boolean;
  /** Reads and checks it whole. */
  read(value: object): object;
}

const properties = new Map<unknown, Map<string, Apart>>();

/** The properties of a class that are held apart; null where it has none. */
export const heldApart = (metatype: unknown): ReadonlyMap<string, Apart> | null =>
  properties.get(metatype) ?? null;

/** Holds a property apart from its class: a class that looked into a large one would copy it three times over. */
export const HeldApart =
  (apart: Apart): PropertyDecorator =>
  ({ constructor }, property) => {
    const held = properties.get(constructor) ?? new Map<string, Apart>();
    properties.set(constructor, held.set(String(property), apart));
  };
