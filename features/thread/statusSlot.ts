/** Where a view puts what it says of itself, at the left of the answer line. */
export const STATUS_SLOT = 'status-slot';
