import { QuantityField, type QuantityFieldProps } from './quantity-field';

/** A part of T that is a number, and the field that shows it. */
export type NumberOf<T> = {
  readonly of: { [K in keyof T]-?: T[K] extends number ? K : never }[keyof T];
} & Readonly<Omit<QuantityFieldProps, 'value' | 'onChange'>>;

/** A field for each listed number of one object. */
export function QuantityFields<T extends object>(props: {
  fields: readonly NumberOf<T>[];
  value: T;
  onChange: (part: Partial<T>, gesture?: string) => void;
}) {
  return props.fields.map(({ of, ...field }) => (
    <QuantityField
      key={String(of)}
      {...field}
      value={props.value[of] as number}
      onChange={(value, gesture) => props.onChange({ [of]: value } as Partial<T>, gesture)}
    />
  ));
}
