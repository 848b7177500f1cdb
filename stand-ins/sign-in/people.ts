/** Somebody with a campus account; `note` marks those whom the sign-in page offers by a press. */
export interface Somebody { sub: string, name: string, email: string, note?: string }
