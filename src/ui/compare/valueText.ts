/** A value as a reader takes it in: a quantity, a choice, or that there is one. */
export function valueText(value: unknown, quantity: (value: number) => string): string {
  if (value === undefined) return 'none';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value)) return `${value.length} entries`;
  if (typeof value === 'object' && value !== null) {
    if ('value' in value && 'origin' in value) return quantity(value.value as number);
    if ('name' in value) return 'there';
    return 'kind' in value ? String(value.kind) : 'there';
  }
  return String(value).replaceAll('-', ' ');
}
