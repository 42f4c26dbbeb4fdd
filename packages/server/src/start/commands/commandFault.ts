/** A failure reported by its message alone. */
export class CommandFault extends Error {}
